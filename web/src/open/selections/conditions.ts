import type { Shapes } from "../../api/client";
import { ATTRIBUTES } from "../../api/constants";

export type Condition = Shapes["Condition"];
export type How = Condition["how"];

/** A condition as it is being typed. */
export interface Draft {
  what: string;
  how: How;
  typed: string;
}

/** What of a component can be asked besides its properties, as one says it. */
export const PLAIN: Readonly<Record<string, string>> = {
  ...Object.fromEntries(ATTRIBUTES.map(({ what, label }) => [what, label])),
  description: "Description",
};

export const HOWS: Readonly<Record<How, string>> = {
  equal: "is",
  differs: "is not",
  contains: "contains",
  over: "is over",
  under: "is under",
  between: "is between",
  missing: "is missing",
  present: "is given",
};

const FIGURES: readonly How[] = ["over", "under", "between"];

/** The ways to ask for something: figures can be over and under, names cannot. */
export function howsOf(what: string): How[] {
  const all = Object.keys(HOWS) as How[];
  return what.includes(":") ? all : all.filter((how) => !FIGURES.includes(how));
}

const FIGURE = /^\s*([-+]?\d+(?:[.,]\d+)?)\s*(\D.*)?$/;
const PAIR = /^\s*([-+]?\d+(?:[.,]\d+)?)\s*(?:to|and|[-–…]|\s)\s*(\d+(?:[.,]\d+)?)\s*(\D.*)?$/;
const number = (text = "") => Number(text.replace(",", "."));

/** A condition that was typed to its end, null while it is not. */
export function conditionOf({ what, how, typed }: Draft): Condition | null {
  if (how === "missing" || how === "present") return { what, how, value: null, unit: "" };
  if (!typed.trim()) return null;
  if (how === "between") {
    const [, low, high, unit = ""] = PAIR.exec(typed) ?? [];
    return low ? { what, how, value: [number(low), number(high)], unit: unit.trim() } : null;
  }
  const [, figure, unit = ""] = FIGURE.exec(typed) ?? [];
  if (FIGURES.includes(how)) return figure ? { what, how, value: number(figure), unit: unit.trim() } : null;
  // "is 150 mm" asks for a figure, "is EI60" and "is 1.07" for a name.
  if (figure && unit && what.includes(":")) return { what, how, value: number(figure), unit: unit.trim() };
  return { what, how, value: typed.trim(), unit: "" };
}

/** A kept condition as it was typed. */
export function draftOf({ what, how, value, unit = "" }: Condition): Draft {
  const said = Array.isArray(value)
    ? value.join(" to ")
    : value === true
      ? "yes"
      : value === false
        ? "no"
        : value;
  return { what, how, typed: `${said ?? ""} ${unit}`.trim() };
}
