import { expect, test } from "vitest";
import type { View } from "../../api/client";
import { ALONG_A_ROUTE, announce, causeOf, following } from "./cause";
import { MOST_PLACES, sameEye, stepped, withPlace } from "./trail";

const pose = (x: number): View => ({
  version: 2,
  eye: {
    eye_m: [x, 0, 0],
    target_m: [x, 1, 0],
    up: [0, 0, 1],
    projection: "perspective",
    angle_deg: 60,
    height_m: 10,
  },
  limits: { through_m: 0, depth_m: null },
  rules: [],
  cuts: [],
  measures: [],
  style: "edges",
  markups: [],
  pictures: [],
  whole: { kind: "these", of: {} },
  alternatives: {},
  picked: { kind: "these", of: {} },
});
const withEye = (x: number, more: Partial<View["eye"]>): View => ({
  ...pose(x),
  eye: { ...pose(x).eye, ...more },
});
const place = (x: number, cause = "turned") => ({ view: pose(x), cause, picture: "" });
const grown = (count: number) => {
  let trail: Parameters<typeof withPlace>[0] = { places: [], at: 0 };
  for (let i = 0; i < count; i++) trail = withPlace(trail, place(i));
  return trail;
};
const eyes = (trail: { places: readonly { view: View }[] }) => trail.places.map((p) => p.view.eye.eye_m[0]);

test("places follow one another and one is at the last", () => {
  const trail = grown(3);
  expect(eyes(trail)).toEqual([0, 1, 2]);
  expect(trail.at).toBe(2);
  expect(new Set(trail.places.map((p) => p.id)).size).toBe(3);
});

test("resting where one is already adds nothing", () => {
  const trail = grown(2);
  expect(withPlace(trail, place(1 + 1e-9))).toBe(trail);
  expect(eyes(withPlace(trail, place(1.001)))).toEqual([0, 1, 1.001]);
});

test("going back and then moving keeps what was ahead, and the new place comes last", () => {
  const trail = { ...grown(4), at: 1 };
  const next = withPlace(trail, place(9));
  expect(eyes(next)).toEqual([0, 1, 2, 3, 9]);
  expect(next.at).toBe(4);
});

test("coming to the last place again adds nothing", () => {
  const next = withPlace({ ...grown(3), at: 0 }, place(2));
  expect([eyes(next), next.at]).toEqual([[0, 1, 2], 2]);
});

test("one approach is one place, the last of it; after a pause or by another way it is a new one", () => {
  const begun = grown(2);
  const rested = (x: number, restedMs: number, cause = "zoomed") => ({ ...place(x, cause), restedMs });
  const near = [rested(10, 0), rested(11, 4000), rested(12, 9000)].reduce<typeof begun>(withPlace, begun);
  expect([eyes(near), near.at]).toEqual([[0, 1, 12], 2]);
  expect(new Set(near.places.map((p) => p.id)).size).toBe(3);
  expect(eyes(withPlace(near, rested(13, 20_000)))).toEqual([0, 1, 12, 13]);
  expect(eyes(withPlace(near, rested(13, 9500, "turned")))).toEqual([0, 1, 12, 13]);
  // Places that one went back to stay as they are.
  expect(eyes(withPlace({ ...near, at: 1 }, rested(13, 9500)))).toEqual([0, 1, 12, 13]);
  const followed = [rested(20, 0, following("Ida")), rested(21, 900, following("Ida"))];
  expect(eyes(followed.reduce<typeof begun>(withPlace, begun))).toEqual([0, 1, 21]);
  const walked = [rested(30, 0, ALONG_A_ROUTE), rested(31, 900, ALONG_A_ROUTE)];
  expect(eyes(walked.reduce<typeof begun>(withPlace, begun))).toEqual([0, 1, 31]);
});

test("zooming that a wall holds back is no new place", () => {
  const trail = grown(2);
  const held = { ...place(1), view: withEye(1, { target_m: [1, 5, 0], height_m: 50 }) };
  expect(withPlace(trail, held)).toBe(trail);
});

test("steps end at both ends", () => {
  const trail = grown(2);
  expect([stepped(trail, -1), stepped(trail, 1)]).toEqual([0, null]);
  expect(stepped({ ...trail, at: 0 }, -1)).toBeNull();
});

test("the last 200 are kept, and the first always", () => {
  const trail = grown(MOST_PLACES + 30);
  expect(trail.places).toHaveLength(MOST_PLACES);
  expect(eyes(trail)[0]).toBe(0);
  expect(eyes(trail).at(-1)).toBe(MOST_PLACES + 29);
  expect(trail.at).toBe(MOST_PLACES - 1);
});

test("another projection or lens is another place", () => {
  expect(sameEye(pose(0), withEye(0, { projection: "parallel" }))).toBe(false);
  expect(sameEye(pose(0), withEye(0, { angle_deg: 61 }))).toBe(false);
  expect(
    sameEye(withEye(0, { projection: "parallel" }), withEye(0, { projection: "parallel", height_m: 11 })),
  ).toBe(false);
  expect(sameEye(pose(0), pose(0))).toBe(true);
});

test("a jump is told by what it was for, a drag by what it did", () => {
  announce("fit: duct AD-114");
  expect(causeOf("went")).toBe("fit: duct AD-114");
  expect(causeOf("panned")).toBe("panned");
});

test("what was announced counts for one jump, however one moves before it is made", () => {
  announce("home");
  expect(causeOf("walked")).toBe("walked");
  expect(causeOf("went")).toBe("home");
  expect(causeOf("went")).toBe("went");
});
