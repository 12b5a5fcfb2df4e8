import { expect, test } from "vitest";
import { nameFrom } from "./naming";

test("a project is named by what its files' names share", () => {
  expect(nameFrom([{ name: "QH-ARC.ifc" }, { name: "QH-STR.ifc" }])).toBe("QH");
  expect(nameFrom([{ name: "tower.ifc" }])).toBe("tower");
  expect(nameFrom([{ name: "a.ifc" }, { name: "b.ifc" }])).toBe("a");
});
