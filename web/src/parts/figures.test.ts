import { expect, test } from "vitest";
import { parsed, wrongFigure } from "./Figures";

test("a number is taken with a comma or a point", () => {
  expect(parsed(" 5,25 ")).toBe(5.25);
  expect(parsed("-0.5")).toBe(-0.5);
});

test("what is no number is said, with what to do", () => {
  expect(wrongFigure(["1", "2,5"])).toBe("");
  expect(wrongFigure(["1", " "])).toBe("A number is missing. Type it, or 0.");
  for (const text of ["five", "1e400", "NaN", "200000000"]) {
    expect(wrongFigure(["1", text])).toContain(`${text} is not a valid number`);
  }
});
