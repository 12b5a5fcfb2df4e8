/** How somebody reads and types lengths; the model is always in metres. */
export type Units = "m" | "mm" | "ft" | "ft_decimal";

export const UNITS: Readonly<Record<Units, string>> = {
  m: "metres",
  mm: "millimetres",
  ft: "feet and inches, to 1/16",
  ft_decimal: "feet and inches, decimals",
};

export const UNIT_NAMES = Object.keys(UNITS) as readonly Units[];
