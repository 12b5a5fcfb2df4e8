import { Vector3 } from "three";
import { describe, expect, test } from "vitest";
import { Tour } from "../open/walking/tour";
import { ribbon } from "../stage/layers/routeLine";
import {
  answersNow,
  changedSince,
  difference,
  type RouteAnswer,
  type RouteWish,
  spokenAvoided,
  spokenTime,
  typedMetres,
  useRouteState,
  wayShown,
  wishNow,
} from "./routeState";

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
    expect(difference(answer({}), answer({ found: false }))).toContain("Now there is none");
  });
});

test("a limit is typed in any unit, and refused where it is none", () => {
  expect(["0.9", " 1,25 ", "0", "3"].map((t) => typedMetres(t, 3))).toEqual([0.9, 1.25, 0, 3]);
  expect(["", "wide", "-1", "3.01"].map((t) => typedMetres(t, 3))).toEqual([null, null, null, null]);
  expect(["900 mm", `3'`].map((t) => typedMetres(t, 3)?.toFixed(6))).toEqual(["0.900000", "0.914400"]);
});

describe("what is asked for", () => {
  const form = {
    start: { room: 1, label: "0.01 West" },
    end: { point_m: [1, 2, 0], label: "a point" },
    body: null,
    stepFree: false,
    widthLimitM: 0.9,
    heightLimitM: 2,
  };
  const asked = wishNow(form, "standing") as RouteWish;

  test("is nothing until both ends are known", () => {
    expect(wishNow({ ...form, end: null }, "standing")).toBeNull();
    expect(asked).toMatchObject({ body: "standing", step_free: false });
  });

  test("is for the body that was chosen for the route, and else for the walker's", () => {
    expect(wishNow({ ...form, body: "wheelchair" }, "standing")).toMatchObject({ body: "wheelchair" });
  });

  test("an answer counts until another one is searched or anything was changed", () => {
    const state = { ...useRouteState.getState(), ...form, asked, searching: null };
    expect(answersNow(state, "standing")).toBe(true);
    expect(answersNow({ ...state, searching: 1 }, "standing")).toBe(false);
    expect(answersNow({ ...state, stepFree: true }, "standing")).toBe(false);
    expect(answersNow(state, "trolley")).toBe(false);
    expect(answersNow({ ...state, body: "standing" }, "trolley")).toBe(true);
  });

  test("that differs from what was answered is told", () => {
    expect(changedSince(asked, asked)).toBe("");
    expect(changedSince(null, asked)).toBe("");
    // A room by another name is the same room.
    expect(changedSince(asked, { ...asked, start: { room: 1, label: "West" } })).toBe("");
    expect(changedSince(asked, { ...asked, body: "wheelchair", start: { room: 2, label: "" } })).toBe(
      "Changed since this was found: start, body.",
    );
  });

  test("another way that was chosen is the one that is shown", () => {
    const avoids = { what: "width" as const, size_m: 0.82, at_m: [0, 0, 0], components: [] };
    const others = [{ avoids, answer: answer({ length_m: 55 }) }];
    expect(wayShown({ answer: answer({}), others, chosen: 0 })?.length_m).toBe(55);
    expect(wayShown({ answer: answer({}), others, chosen: null })?.length_m).toBe(40);
    expect(spokenAvoided(avoids)).toBe("a tight place, 0.82 m wide");
    expect(spokenAvoided({ ...avoids, what: "flight", size_m: null })).toBe("a flight of stairs");
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
