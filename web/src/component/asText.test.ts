import { expect, test } from "vitest";
import type { Component } from "../api/client";
import { spokenIn } from "../open/units";
import { asText, sideBySide } from "./asText";

const UNITS = spokenIn("m");
const DOOR: Component = {
  model_id: "m",
  model: "QH-ARC",
  file_name: "QH-ARC.ifc",
  global_id: "0abc",
  ifc_class: "IfcDoor",
  class_name: "Door",
  name: "Door",
  tag: "D-1",
  description: "",
  type_name: "Single leaf",
  predefined: "",
  material: "Oak",
  systems: [],
  level: "Level 01",
  discipline: "ARC",
  room: null,
  part_of: null,
  hosted_in: null,
  hosts: [],
  parts: [],
  connected: [],
  place: "Level 01, on the level",
  bounds_m: null,
  properties: { Pset_DoorCommon: { FireRating: "EI30", IsExternal: false } },
  quantities: { BaseQuantities: { Width: { value: 0.9, unit: "m" } } },
};

test("a component is copied as lines that can be read in a message", () => {
  const text = asText(DOOR, UNITS).split("\n");
  expect(text[0]).toBe("D-1");
  expect(text).toContain("Class: Door (IfcDoor)");
  expect(text).toContain("Where: Level 01, on the level");
  expect(text).toContain("  FireRating: EI30");
  expect(text.some((line) => line.startsWith("System"))).toBe(false);
  expect(text).toContain("  Width: 0.900 m");
});

test("two components stand side by side, and what differs is marked, also where one has nothing", () => {
  const other = { ...DOOR, name: "Gate", properties: { Pset_DoorCommon: { FireRating: "EI60" } } };
  const rows = sideBySide(DOOR, other, UNITS);
  const of = (name: string) => rows.find((row) => row.name === name);
  expect(of("Name")).toEqual({ group: "", name: "Name", one: "Door", other: "Gate", differs: true });
  expect(of("Type")?.differs).toBe(false);
  expect(of("FireRating")).toMatchObject({ one: "EI30", other: "EI60", differs: true });
  expect(of("IsExternal")).toMatchObject({ one: "no", other: "", differs: true });
  expect(of("Room")).toBeUndefined();
});
