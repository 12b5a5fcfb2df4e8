import type { Component } from "../../api/client";
import { plainName } from "../plainName";
import { type Spoken, unitsNow } from "../units";

export interface Entry {
  name: string;
  value: string | number | boolean | null;
  unit: string;
  number: boolean;
}

export interface Group {
  kind: "property" | "quantity";
  name: string;
  entries: Entry[];
}

/** Quantities first, then property sets; those whose set, name or value holds what was typed. */
export function matching(
  component: Pick<Component, "quantities" | "properties">,
  typed: string,
  units: Spoken = unitsNow(),
): Group[] {
  const quantities: Group[] = Object.entries(component.quantities).map(([name, values]) => ({
    kind: "quantity",
    name,
    entries: Object.entries(values).map(([key, q]) => ({
      name: key,
      value: q.value,
      unit: q.unit,
      number: true,
    })),
  }));
  const properties: Group[] = Object.entries(component.properties).map(([name, values]) => ({
    kind: "property",
    name,
    entries: Object.entries(values).map(([key, value]) =>
      typeof value === "object" && value !== null
        ? { name: key, value: value.value, unit: value.unit, number: true }
        : { name: key, value, unit: "", number: typeof value === "number" },
    ),
  }));
  const wanted = typed.trim().toLowerCase();
  // People type what they read; others know the standard's names.
  const found = (name: string) => `${name} ${plainName(name)}`.toLowerCase().includes(wanted);
  return [...quantities, ...properties]
    .map((group) => ({
      ...group,
      entries: group.entries.filter(
        (e) =>
          !wanted || found(group.name) || found(e.name) || figure(e, units).toLowerCase().includes(wanted),
      ),
    }))
    .filter((group) => group.entries.length > 0);
}

/** A value as it is read: figures to the millimetre with their unit, yes and no for true and false. */
export function figure(entry: Entry, units: Spoken): string {
  const { value, unit } = entry;
  if (value === null || value === "") return "not given";
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (typeof value !== "number") return value;
  if (unit === "m") return units.length(value);
  if (unit === "m²" || unit === "m2") return units.area(value);
  if (unit === "m³" || unit === "m3") return units.volume(value);
  if (unit === "Pa" && Math.abs(value) >= 10_000) return `${value / 1000} kPa`;
  if (Number.isInteger(value) && !unit) return String(value);
  const text = value.toFixed(Math.abs(value) < 0.01 ? 4 : Math.abs(value) < 1000 ? 3 : 1);
  // Only zeros behind the point say nothing.
  return unit ? `${text} ${unit}` : text.replace(/\.?0+$/, "");
}

/** A predefined type in words: CURTAIN_PANEL is "curtain panel". */
export function spoken(word: string): string {
  return word.toLowerCase().replaceAll("_", " ");
}
