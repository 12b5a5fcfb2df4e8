import { expect, test } from "vitest";
import { spokenDay, spokenMoment } from "./dates";

test("a day is the same day everywhere, and a moment has its day in the same form", () => {
  expect(spokenDay("2026-12-04")).toBe(spokenDay("2026-12-04T12:00:00"));
  expect(spokenMoment("2026-12-04T12:00:00")).toContain(spokenDay("2026-12-04"));
  expect(spokenDay("2026-12-04")).toMatch(/^[\d./-]*$/);
  expect(spokenDay("2026-12-04")).toMatch(/2026/);
  expect([spokenDay("not a day"), spokenMoment("")]).toEqual(["not a day", ""]);
});
