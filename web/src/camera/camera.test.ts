import { Vector3 } from "three";
import { expect, test } from "vitest";
import { Refused, type View } from "../api/client";
import { toView } from "../open/document";
import { bitSet, spokenSubject, wishOf } from "../open/looking/subject";
import { federationOf } from "../open/testFederation";
import { forward, looking, type Pose, turned, withAngle } from "../stage/pose";
import { fromAddress, toAddress } from "./address";

const POSE: Pose = {
  eye: new Vector3(3, -20, 5),
  target: new Vector3(0, 0, 2),
  up: new Vector3(0, 0.1483, 0.9889),
  projection: "perspective",
  angleDeg: 54.4,
  heightM: 13.2,
  throughM: 0,
};
const FEDERATION = federationOf(
  {
    a: [
      ["w-1", 0, 0],
      ["w-2", 0, 0],
    ],
    b: [["s-1", 1, 0]],
  },
  { rooms: [{ model: "m", global_id: "g", number: "0.01", name: "Hall", level: 0 }] },
  ["b"],
);

const SHOWN_ALL = new Uint8Array([2, 2, 0]);
const LEVEL = "Level 02/A, new";
const HERE: View = toView(
  { ...FEDERATION, origin_m: [412_300, 88_650, 0] },
  POSE,
  {
    rules: [
      {
        select: { kind: "of", what: "level", value: LEVEL },
        effect: "hide",
        colour: null,
        by: "Ada Löf",
        at: "",
        why: "to look in",
        off: false,
      },
      {
        select: { kind: "these", of: { a: ["x"], b: ["z$1"] } },
        effect: "fade",
        colour: null,
        by: "",
        at: "",
        why: "",
        off: true,
      },
    ],
    depthM: 4,
    cuts: [],
    measures: [],
    whole: {},
    style: "lines",
    markups: [],
    pictures: [],
  },
  [],
);
/** Links that a test keeps; nothing else is known. */
const kept = new Map<string, View>();
const LINKS = {
  keep: async (view: View) => {
    kept.set("k1", view);
    return "k1";
  },
  open: async (id: string) => {
    const found = kept.get(id);
    if (!found) throw new Refused("There is no view of that link; it may have been cut short.");
    return found;
  },
};
const opened = (hash: string) => fromAddress(hash, FEDERATION, LINKS);

test("an address carries all of the view in project coordinates", async () => {
  const hash = await toAddress(HERE, LINKS);
  expect(kept.size).toBe(0);
  const back = await opened(hash);
  expect(back?.view.eye.eye_m).toEqual([412_303, 88_630, 5]);
  expect(back?.view.eye.target_m).toEqual([412_300, 88_650, 2]);
  expect([back?.view.eye.angle_deg, back?.view.eye.height_m]).toEqual([54.4, 13.2]);
  expect(back?.view.limits).toEqual({ through_m: 0, depth_m: 4 });
  expect(back?.view.rules).toEqual(HERE.rules);
  expect(back?.trouble).toBe("");
});

test("rules that are too long for an address go by the short name of a link", async () => {
  const ids = Array.from({ length: 500 }, (_, i) => `${(i * 7919) % 10007}${"abcdefghij".repeat(2)}`);
  const [first] = HERE.rules ?? [];
  const long = {
    ...HERE,
    rules: first ? [{ ...first, select: { kind: "these" as const, of: { a: ids } } }] : [],
  };
  const hash = await toAddress(long, LINKS);
  expect(hash.length).toBeLessThan(200);
  expect(hash).toContain("link=k1");
  expect((await opened(hash))?.view.rules).toEqual(long.rules);
  const other = await opened(hash.replace("k1", "k2"));
  expect([other?.view.rules, other?.trouble]).toEqual([
    [],
    "There is no view of that link; it may have been cut short.",
  ]);
});

test("an address that was cut short still opens its view, and says what is missing", async () => {
  const whole = await toAddress(HERE, LINKS);
  for (let end = whole.indexOf("&"); end < whole.length; end += 7) {
    const back = await opened(whole.slice(0, end));
    expect(back?.view.eye.angle_deg).toBe(54.4);
    expect(back?.view.rules).toEqual([]);
    if (end > whole.indexOf("seen=") + 6) expect(back?.trouble).toContain("incomplete");
  }
});

test("an address of an earlier version is read", async () => {
  const back = await opened(
    "#view=e3,-20,5,0,0,2,0,0.148,0.989,54.4,13.2&cells=Level%2002%2FA/ARC/hidden&faded=a.y",
  );
  expect(back?.view.rules?.map((rule) => [rule.effect, rule.select.kind])).toEqual([
    ["hide", "both"],
    ["fade", "these"],
  ]);
  expect(back?.view.rules?.[1]?.select).toEqual({ kind: "these", of: { a: ["y"] } });
});

test.each([
  "",
  "#",
  "#view=",
  "#view=e1,2,3",
  "#view=e0,0,0,0,0,0,0,0,1,60,10",
  "#view=e0,0,0,0,0,5,0,0,1,60,10",
  "#view=e1,2,x",
])("an address that carries no view gives none: %s", async (hash) => expect(await opened(hash)).toBeNull());

test("what is fitted is told to the server and on the Trail", () => {
  expect(wishOf(FEDERATION, SHOWN_ALL, { kind: "all" })).toEqual({});
  expect(wishOf(FEDERATION, SHOWN_ALL, { kind: "room", room: 0 })).toEqual({ room: 0 });
  expect(wishOf(FEDERATION, SHOWN_ALL, { kind: "components", components: [1, 99] })).toEqual({
    components: [{ model: "a", global_id: "w-2" }],
  });
  expect(spokenSubject(FEDERATION, { kind: "room", room: 0 })).toBe("fit: 0.01 Hall");
  expect(spokenSubject(FEDERATION, { kind: "storey", level: 1 })).toBe("fit: Level 01");
  expect(spokenSubject(FEDERATION, { kind: "components", components: [0, 1] })).toBe("fit: W-1 and 1 more");
});

test("what is visible goes as bits, the first component the lowest", () => {
  const hidden = new Uint8Array([0, 2, 0]);
  expect(wishOf(FEDERATION, hidden, { kind: "visible" })).toEqual({ among: btoa("\u0002") });
  expect(bitSet([true, false, false, false, false, false, false, false, true])).toBe(btoa("\u0001\u0001"));
});

test("turning about a point keeps its distance and looks along the bearing and tilt", () => {
  const about = new Vector3(1, 2, 3);
  const next = turned(POSE, about, 123, 30);
  const { bearingDeg, tiltDeg } = looking(next);
  expect(bearingDeg).toBeCloseTo(123, 9);
  expect(tiltDeg).toBeCloseTo(30, 9);
  expect(next.eye.distanceTo(about)).toBeCloseTo(POSE.eye.distanceTo(about), 9);
  expect(next.eye.distanceTo(next.target)).toBeCloseTo(POSE.eye.distanceTo(POSE.target), 9);
});

test("straight down and straight up can be looked along", () => {
  for (const tilt of [90, -90]) {
    const next = turned(POSE, POSE.target, 40, tilt);
    expect(forward(next).z).toBeCloseTo(-Math.sign(tilt), 9);
    expect(looking(next).bearingDeg).toBeCloseTo(40, 6);
  }
});

test("one lens handle keeps the eye, the other the subject", () => {
  const wide = withAngle(POSE, 90, "eye");
  expect(wide.eye.toArray()).toEqual(POSE.eye.toArray());
  const near = withAngle(POSE, 90, "subject");
  const width = (p: Pose) => 2 * p.eye.distanceTo(p.target) * Math.tan((p.angleDeg * Math.PI) / 360);
  expect(width(near)).toBeCloseTo(width(POSE), 9);
  expect(near.heightM).toBe(POSE.heightM);
});
