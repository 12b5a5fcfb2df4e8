import { expect, test } from "vitest";
import type { ModelCard } from "../api/client";
import { broughtSince, type Issue, knownIssue } from "./newer";

const BEFORE = "2026-11-20T10:00:00Z";
const issue = (id: string, added_at: string): Issue => ({
  id,
  file_name: "Ducts-AIR.ifc",
  added_by: "Tam Kerr",
  added_at,
  components: 2,
});

test("of the issues one knows the last that was there before; of a model that came since none", () => {
  const issues = [
    issue("third", "2026-11-21T09:00:00Z"),
    issue("first", "2026-11-01T09:00:00Z"),
    issue("second", "2026-11-20T11:00:00+01:00"),
  ];
  expect(knownIssue(issues, BEFORE)?.id).toBe("second");
  expect(knownIssue(issues.slice(0, 1), BEFORE)).toBeNull();
});

test("what others brought since is told, not one's own, and not what is not read or not in use", () => {
  type Card = Pick<ModelCard, "id" | "stands" | "status" | "added_at" | "added_by">;
  const base = {
    stands: true,
    status: "read",
    added_at: "2026-11-21T09:00:00Z",
    added_by: "Tam Kerr",
  } as const;
  const cards: Card[] = [
    { ...base, id: "newer" },
    { ...base, id: "own", added_by: "Ida Fenn" },
    { ...base, id: "older", added_at: "2026-11-19T09:00:00Z" },
    { ...base, id: "failed", status: "failed" },
    { ...base, id: "aside", stands: false },
  ];
  expect(broughtSince(cards, BEFORE, "Ida Fenn").map(({ id }) => id)).toEqual(["newer"]);
});
