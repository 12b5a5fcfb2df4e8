import fc from "fast-check";
import { expect, test } from "vitest";
import { type Area, shiftApart } from "./apart";

const at = (left: number, top: number): Area => ({ left, top, width: 100, height: 30 });

test("what covers nothing stays, and what covers others goes below them", () => {
  expect(shiftApart(at(0, 0), [at(200, 0)], 600)).toBe(0);
  expect(shiftApart(at(0, 10), [at(50, 0)], 600)).toBe(20);
  expect(shiftApart(at(0, 10), [at(50, 0), at(0, 35)], 600)).toBe(55);
});

test("at the foot of the stage it goes above", () => {
  expect(shiftApart(at(0, 570), [at(0, 560)], 600)).toBe(-40);
});

test("it covers none of the others where there is room", () => {
  const places = fc.record({ left: fc.integer({ min: 0, max: 500 }), top: fc.integer({ min: 0, max: 500 }) });
  fc.assert(
    fc.property(places, fc.array(places, { maxLength: 8 }), (own, others) => {
      const areas = others.map(({ left, top }) => at(left, top));
      const moved = {
        ...at(own.left, own.top),
        top: own.top + shiftApart(at(own.left, own.top), areas, 2000),
      };
      return areas.every(
        (each) =>
          moved.left >= each.left + 100 ||
          each.left >= moved.left + 100 ||
          moved.top >= each.top + 30 ||
          each.top >= moved.top + 30,
      );
    }),
  );
});
