import { expect, test } from "vitest";
import { figure, matching, spoken } from "./properties";

const component = {
  quantities: { Base: { Length: { value: 4, unit: "m" } } },
  properties: {
    Pset_Pipe: { WorkingPressure: { value: 600_000, unit: "Pa" }, Covered: false, Note: null, Sides: 8 },
  },
};

test("quantities come first, and a search looks at sets, names and values", () => {
  expect(matching(component, "").map((g) => g.name)).toEqual(["Base", "Pset_Pipe"]);
  expect(matching(component, "pressure").flatMap((g) => g.entries.map((e) => e.name))).toEqual([
    "WorkingPressure",
  ]);
  expect(matching(component, "600 kpa")).toHaveLength(1);
  expect(matching(component, "pset_pipe")[0]?.entries).toHaveLength(4);
  expect(matching(component, "zebra")).toEqual([]);
});

test("figures are read with their unit", () => {
  const texts = matching(component, "").flatMap((g) => g.entries.map(figure));
  expect(texts).toEqual(["4.000 m", "600 kPa", "no", "not given", "8"]);
});

test("IFC's words are spoken", () => {
  expect(spoken("IfcAirTerminal")).toBe("Air terminal");
  expect(spoken("CURTAIN_PANEL")).toBe("curtain panel");
});
