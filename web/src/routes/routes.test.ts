import { Vector3 } from "three";
import { describe, expect, test } from "vitest";
import { ribbon } from "../stage/routeLine";
import { difference, type RouteAnswer, spokenTime } from "./routeState";
import { Tour } from "./tour";

const answer = (change: Partial<RouteAnswer>): RouteAnswer => ({
  found: true,
  version: 1,
  length_m: 40,
  rise_m: 8,
  descent_m: 0,
  risers: 48,
  time_s: 50,
  points_m: [],
  narrowest: null,
  lowest: null,
  pinches: [],
  blocked: null,
  ...change,
});

describe("a route in words", () => {
  test("times", () => {
    expect(spokenTime(51.2)).toBe("51 s");
    expect(spokenTime(125)).toBe("2 min 05 s");
  });

  test("what another alternative changes", () => {
    expect(difference(answer({}), answer({ length_m: 42.5, risers: 46, time_s: 52 }))).toBe(
      "Against before: +2.50 m, −2 risers, +2.0 s.",
    );
    expect(difference(answer({}), answer({}))).toBe("");
    expect(difference(answer({}), answer({ found: false }))).toContain("now there is none");
  });
});

describe("walking a route", () => {
  const tour = new Tour([new Vector3(0, 0, 0), new Vector3(3, 0, 0), new Vector3(3, 4, 0)]);

  test("is so long and somewhere after so many metres", () => {
    expect(tour.lengthM).toBe(7);
    expect(tour.at(-1).toArray()).toEqual([0, 0, 0]);
    expect(tour.at(5).toArray()).toEqual([3, 2, 0]);
    expect(tour.at(99).toArray()).toEqual([3, 4, 0]);
  });

  test("looks ahead round the corner and straight on at the end", () => {
    expect(tour.ahead(0).x).toBeCloseTo(1);
    const turning = tour.ahead(2.5);
    expect(turning.x).toBeGreaterThan(0);
    expect(turning.y).toBeGreaterThan(0);
    expect(tour.ahead(7).y).toBeCloseTo(1);
  });

  test("is drawn as a ribbon a little over the floor", () => {
    const corners = ribbon([new Vector3(0, 0, 1), new Vector3(2, 0, 1)]);
    expect(corners.length).toBe(18);
    const ys = Array.from(corners).filter((_, k) => k % 3 === 1);
    expect(Math.max(...ys) - Math.min(...ys)).toBeCloseTo(0.14);
    expect(corners[2]).toBeCloseTo(1.04);
  });
});
