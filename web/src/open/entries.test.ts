import { expect, test } from "vitest";
import { entries } from "./entries";

test("what was typed over a list says what was added and taken away, and nothing of the rest", () => {
  expect(entries(["Ida", "Tam"], [" Tam ", "Mara", ""])).toEqual({ add: ["Mara"], drop: ["Ida"] });
  expect(entries([""], [""])).toEqual({ add: [], drop: [] });
});
