import { expect, test } from "vitest";
import { changedSince, changeName, inverse } from "./inverse";
import { testTopic } from "./testTopic";

const before = testTopic(
  "AIR 001",
  { status: "open", due: "2026-12-04", labels: ["fire", "site"] },
  { views: ["one"], related: ["other"] },
);

test("a change is taken back field by field, and of lists only what it changed", () => {
  const wish = {
    status: "in hand",
    due: null,
    labels: { add: ["door", "fire"], drop: ["site"] },
    views: { add: ["two"], drop: [] },
  };
  expect(inverse(before, wish)).toEqual({
    status: "open",
    due: "2026-12-04",
    labels: { add: ["site"], drop: ["door"] },
    views: { add: [], drop: ["two"] },
  });
  expect(inverse(testTopic("AIR 001", {}), { due: "2026-12-04" })).toEqual({ due: null });
  expect(changeName(before, { assigned_to: "Tam", due: null })).toBe(
    "changed the assignee and due date of AIR 001",
  );
});

test("what somebody else wrote since is not taken for one's own", () => {
  const wish = { description: "Mine" };
  const now = (description: string) => testTopic("AIR 001", { description });
  expect(changedSince(before, wish, now("Mine"))).toBeNull();
  // The page may not have heard of its own change yet.
  expect(changedSince(before, wish, now(""))).toBeNull();
  expect(changedSince(before, wish, now("Theirs"))).toBe("description");
});
