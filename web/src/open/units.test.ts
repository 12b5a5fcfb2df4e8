import fc from "fast-check";
import { describe, expect, test } from "vitest";
import type { Units } from "./unitNames";
import {
  lengthOf,
  lengthsWithin,
  shortHeight,
  signedLength,
  spokenArea,
  spokenLength,
  spokenVolume,
  typedLength,
  wrongLength,
} from "./units";

const ALL: readonly Units[] = ["m", "mm", "ft", "ft_decimal"];
const INCH_M = 0.0254;

describe("a length that is typed", () => {
  test.each([
    ["2.5 m", 2.5],
    ["2,5m", 2.5],
    ["2500 mm", 2.5],
    ["250cm", 2.5],
    [`8' 2 1/2"`, 98.5 * INCH_M],
    ["8′ 2 1/2″", 98.5 * INCH_M],
    [`8'-2 1/2"`, 98.5 * INCH_M],
    ["8ft 2.5in", 98.5 * INCH_M],
    ["8'", 96 * INCH_M],
    [`2 1/2"`, 2.5 * INCH_M],
    [`1/16"`, INCH_M / 16],
    ["-0.5 m", -0.5],
    [`− 2"`, -2 * INCH_M],
  ])("%s is the same for everybody", (text, metres) => {
    for (const units of ALL) expect(lengthOf(text, units)).toBeCloseTo(metres, 12);
  });

  test("a number alone is in one's own unit", () => {
    expect(lengthOf("2500", "mm")).toBe(2.5);
    expect(lengthOf("2.5", "m")).toBe(2.5);
    expect(lengthOf("10", "ft")).toBeCloseTo(3.048, 12);
    expect(lengthOf("8' 2 1/2", "ft")).toBeCloseTo(98.5 * INCH_M, 12);
  });

  test.each(["", "five", "2 5 m", "m", `"`, '1/0"', "1e400", "NaN", "3 1/2", "200000000", "2.5 kg"])(
    "%j is none, and it is said what to type",
    (text) => {
      expect(lengthOf(text, "m")).toBeNull();
      expect(wrongLength(["1 m", text], "m")).toMatch(/type/i);
    },
  );

  test("of lengths that are all right nothing is said", () => {
    expect(wrongLength(["1", `2'`], "m")).toBe("");
  });
});

describe("a length that is read", () => {
  test("is to the millimetre, or to a sixteenth in its lowest terms", () => {
    expect(spokenLength(2.5004, "m")).toBe("2.500 m");
    expect(spokenLength(0.012, "mm")).toBe("12.0 mm");
    expect(spokenLength(98.5 * INCH_M, "ft")).toBe(`8' 2 1/2"`);
    expect(spokenLength(11.999 * INCH_M, "ft")).toBe(`1' 0"`);
    expect(spokenLength(3 * (INCH_M / 16), "ft")).toBe(`3/16"`);
    expect(spokenLength(98.5 * INCH_M, "ft_decimal")).toBe(`8' 2.50"`);
    expect(spokenLength(-0.25, "m", 2)).toBe("−0.25 m");
    expect(spokenLength(-0.0001, "m")).toBe("0.000 m");
    expect(signedLength(0, "m", 2)).toBe("±0.00 m");
    expect(signedLength(3, "mm", 0)).toBe("+3000 mm");
  });

  test("areas and volumes follow", () => {
    expect(spokenArea(1, "mm")).toBe("1.000 m²");
    expect(spokenArea(0.3048 ** 2 * 10, "ft")).toBe("10.00 ft²");
    expect(spokenVolume(0.3048 ** 3, "ft_decimal")).toBe("1.000 ft³");
  });
});

describe("there and back", () => {
  test("whole millimetres are the same in metres and in millimetres", () => {
    fc.assert(
      fc.property(fc.integer({ min: -10_000_000, max: 10_000_000 }), (mm) => {
        for (const units of ["m", "mm"] as const) {
          expect(lengthOf(typedLength(mm / 1000, units), units)).toBe(mm / 1000);
          expect(lengthOf(spokenLength(mm / 1000, units), "ft")).toBe(mm / 1000);
        }
      }),
    );
  });

  test("whole sixteenths of an inch are the same in feet and inches", () => {
    fc.assert(
      fc.property(fc.integer({ min: -10_000_000, max: 10_000_000 }), (sixteenths) => {
        const metres = (sixteenths / 16) * INCH_M;
        for (const text of [spokenLength(metres, "ft"), typedLength(metres, "ft")]) {
          const back = lengthOf(text, "m") ?? Number.NaN;
          expect(Math.round((back / INCH_M) * 16)).toBe(sixteenths);
          expect(Math.abs(back - metres)).toBeLessThan(1e-9 * Math.max(1, Math.abs(metres)));
        }
      }),
    );
  });

  test("any length comes back to what its unit can say", () => {
    const step: Record<Units, number> = { m: 0.0001, mm: 0.0001, ft: INCH_M / 16, ft_decimal: INCH_M / 100 };
    fc.assert(
      fc.property(
        fc.double({ min: -1e5, max: 1e5, noNaN: true }),
        fc.constantFrom(...ALL),
        (metres, units) => {
          const back = lengthOf(typedLength(metres, units), units) ?? Number.NaN;
          expect(Math.abs(back - metres)).toBeLessThanOrEqual(step[units] / 2 + 1e-9);
        },
      ),
    );
  });
});

test("lengths in sentences of the core are read in one's own units, and nothing else is changed", () => {
  const sentence = "Beam 3 m: 0.60 m clear, 0.90 m needed, 1.00 m² left at 1.25 m/s.";
  expect(lengthsWithin(sentence, "m")).toBe(sentence);
  expect(lengthsWithin(sentence, "mm")).toBe(
    "Beam 3 m: 600 mm clear, 900 mm needed, 1.00 m² left at 1.25 m/s.",
  );
  expect(lengthsWithin(sentence, "ft")).toBe(
    `Beam 3 m: 1' 11 5/8" clear, 2' 11 7/16" needed, 1.00 m² left at 1.25 m/s.`,
  );
  expect(lengthsWithin("4.00 m from grid 2", "mm")).toBe("4000 mm from grid 2");
});

test("where there is little room heights in feet are to the inch, and stay heights", () => {
  expect([8, 0, -4.2, 7.99].map((metres) => shortHeight(metres, "ft"))).toEqual([
    `+26' 3"`,
    `±0"`,
    `−13' 9"`,
    `+26' 3"`,
  ]);
  expect([8, -4.2].map((metres) => shortHeight(metres, "m"))).toEqual(["+8.00", "−4.20"]);
});
