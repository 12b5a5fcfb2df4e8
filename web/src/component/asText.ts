import type { Component } from "../api/client";
import { figure, matching } from "../open/selections/properties";
import type { Spoken } from "../open/units";

/** What a component is, as plain text for a message: what it is called, where it is, and all that its file says. */
export function asText(component: Component, units: Spoken): string {
  const c = component;
  const line = (name: string, value: string) => (value ? [`${name}: ${value}`] : []);
  const facts = [
    ...line("Name", c.name),
    ...line("Description", c.description),
    ...line("Class", `${c.class_name} (${c.ifc_class})`),
    ...line("Type", c.type_name),
    ...line("Where", units.within(c.place)),
    ...line("System", c.systems.join(", ")),
    ...line("Material", c.material),
    ...line("Model", c.file_name),
    ...line("GlobalId", c.global_id),
  ];
  const groups = matching(c, "", units).flatMap(({ name, entries }) => [
    "",
    name,
    ...entries.map((entry) => `  ${entry.name}: ${figure(entry, units)}`),
  ]);
  return [c.tag || c.name || c.class_name, ...facts, ...groups].join("\n");
}

/** A fact of one component beside the same of another. */
export interface Beside {
  group: string;
  name: string;
  one: string;
  other: string;
  differs: boolean;
}

/** All that is said of either of two components, each beside what is said of the other. */
export function sideBySide(one: Component, other: Component, units: Spoken): Beside[] {
  const facts = (c: Component) =>
    new Map<string, string>([
      ["\u001fName", c.name],
      ["\u001fClass", c.class_name],
      ["\u001fType", c.type_name],
      ["\u001fDescription", c.description],
      ["\u001fLevel", c.level ?? ""],
      ["\u001fRoom", c.room ?? ""],
      ["\u001fSystem", c.systems.join(", ")],
      ["\u001fMaterial", c.material],
      ["\u001fModel", c.file_name],
      ...matching(c, "", units).flatMap(({ name, entries }) =>
        entries.map((entry): [string, string] => [`${name}\u001f${entry.name}`, figure(entry, units)]),
      ),
    ]);
  const [left, right] = [facts(one), facts(other)];
  return [...new Set([...left.keys(), ...right.keys()])].flatMap((key) => {
    const [group = "", name = ""] = key.split("\u001f");
    const [a, b] = [left.get(key) ?? "", right.get(key) ?? ""];
    return a || b ? [{ group, name, one: a, other: b, differs: a !== b }] : [];
  });
}
