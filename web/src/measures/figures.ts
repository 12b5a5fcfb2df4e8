import type { Shapes } from "../api/client";
import type { Spoken } from "../open/units";

type Figure = Shapes["MeasureFigure"];

/** What each figure is called. */
export const CALLED: Readonly<Record<Figure["name"], string>> = {
  distance: "straight",
  plan: "on plan",
  up: "up",
  east: "east",
  north: "north",
  project_x: "project x",
  project_y: "project y",
  fall: "fall",
  sum: "sum",
  leg: "leg",
  ends_distance: "total length",
  ends_plan: "total length on plan",
  ends_up: "total height difference",
  angle: "angle",
  square: "square distance",
  area: "area",
  perimeter: "perimeter",
  volume: "volume",
  clear_height: "clear height",
  clear_width: "clear width",
  hidden_height: "height including hidden components",
  hidden_width: "width including hidden components",
  depth: "depth of the overlap",
  shared_volume: "shared volume",
};

/** A figure as it is read. */
export function read({ quantity, value }: Figure, units: Spoken): string {
  if (quantity === "length") return units.length(value);
  if (quantity === "area") return units.area(value);
  if (quantity === "volume") return units.volume(value);
  if (quantity === "angle") return `${value.toFixed(2)}°`;
  return `${value < 0 ? "−" : ""}${Math.abs(value * 100).toFixed(2)} %`;
}

/** A figure with all its digits and no unit, to be copied. */
export function full({ quantity, value }: Figure, units: Spoken): string {
  if (quantity === "length") return units.full(value);
  if (quantity === "area") return units.fullArea(value);
  if (quantity === "volume") return units.fullVolume(value);
  return String(quantity === "share" ? value * 100 : value);
}
