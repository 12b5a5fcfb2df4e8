import { expect, test } from "vitest";
import { spokenIn } from "../units";
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
  const texts = matching(component, "").flatMap((g) => g.entries.map((e) => figure(e, spokenIn("m"))));
  expect(texts).toEqual(["4.000 m", "600 kPa", "no", "not given", "8"]);
  const length = { name: "Length", value: 0.3048, unit: "m", number: true };
  expect(figure(length, spokenIn("ft"))).toBe(`1' 0"`);
  expect(figure({ ...length, unit: "m³", value: 1 }, spokenIn("m"))).toBe("1.0000 m³");
  const plain = [0, 8, 100, 1200, 0.5, 10.25, 2000.0001].map((value) =>
    figure({ name: "Count", value, unit: "", number: true }, spokenIn("m")),
  );
  expect(plain).toEqual(["0", "8", "100", "1200", "0.5", "10.25", "2000"]);
});

test("IFC's words are spoken", () => {
  expect(spoken("CURTAIN_PANEL")).toBe("curtain panel");
});
