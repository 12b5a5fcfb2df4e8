import { describe, expect, test } from "vitest";
import { federationOf } from "../testFederation";
import { bitSet, spokenSubject, wishOf } from "./subject";

const federation = federationOf(
  {
    arc: [
      ["w-1", 0, 0],
      ["w-2", 0, 0],
    ],
    air: [["ad-114", 0, 1]],
  },
  {
    rooms: [{ model: "m", global_id: "g", number: "2.05", name: "Specimen store", level: 0 }],
    levels: [{ name: "Level 02", elevation_m: 8, begins_m: 7.75 }],
  },
);

function bits(text: string, count: number): boolean[] {
  const bytes = Uint8Array.from(atob(text), (c) => c.charCodeAt(0));
  return Array.from({ length: count }, (_, i) => (((bytes[i >> 3] ?? 0) >> (i & 7)) & 1) === 1);
}

describe("a set of components as bits", () => {
  test("has the first in the lowest bit", () => {
    expect(bitSet([true])).toBe(btoa("\x01"));
    expect(bitSet([false, false, false, false, false, false, false, true, true])).toBe(btoa("\x80\x01"));
    expect(bitSet([])).toBe("");
  });

  test("is read back whole, however many there are", () => {
    for (const count of [1, 7, 8, 9, 64, 3801]) {
      const members = Array.from({ length: count }, (_, i) => (i * i) % 7 < 3);
      expect(bits(bitSet(members), count)).toEqual(members);
    }
  });
});

describe("what a view is fitted to", () => {
  const all = new Uint8Array([2, 2, 2]);
  const hidden = new Uint8Array([2, 0, 2]);

  test("in the server's terms", () => {
    expect(wishOf(federation, all, { kind: "all" })).toEqual({});
    expect(wishOf(federation, all, { kind: "room", room: 0 })).toEqual({ room: 0 });
    expect(wishOf(federation, all, { kind: "storey", level: 0 })).toEqual({ level: 0 });
    const { components } = wishOf(federation, all, { kind: "components", components: [2, 99] });
    expect(components).toEqual([{ model: "air", global_id: "ad-114" }]);
  });

  test("what is hidden is not among what is visible", () => {
    const { among } = wishOf(federation, hidden, { kind: "visible" });
    expect(bits(among ?? "", 3)).toEqual([true, false, true]);
  });

  test("in words", () => {
    const words = (subject: Parameters<typeof spokenSubject>[1]) => spokenSubject(federation, subject);
    expect(words({ kind: "all" })).toBe("fit: all");
    expect(words({ kind: "visible" })).toBe("fit: visible");
    expect(words({ kind: "room", room: 0 })).toBe("fit: 2.05 Specimen store");
    expect(words({ kind: "storey", level: 0 })).toBe("fit: Level 02");
    expect(words({ kind: "components", components: [2] })).toBe("fit: AD-114");
    expect(words({ kind: "components", components: [0, 1, 2] })).toBe("fit: W-1 and 2 more");
    expect(words({ kind: "components", components: [] })).toBe("fit: nothing");
  });
});
