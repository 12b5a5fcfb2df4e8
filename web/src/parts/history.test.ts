import { expect, test } from "vitest";
import { spokenDay } from "../open/dates";
import { spokenField } from "./History";

const field = (name: string, old = "", now = "") => ({ name, old, new: now });

test("a change of a field is told by its name, from what to what", () => {
  expect(spokenField(field("title", "Monday", "Tuesday"), "meeting")).toBe("title: Monday → Tuesday");
  expect(spokenField(field("date", "2026-11-30", "2026-12-01"), "meeting")).toBe(
    `date: ${spokenDay("2026-11-30")} → ${spokenDay("2026-12-01")}`,
  );
  expect(spokenField(field("people", "", "Tam Kerr\nIda Fenn"), "meeting")).toBe(
    "people: nothing → Tam Kerr, Ida Fenn",
  );
  expect(spokenField(field("view"), "viewpoint")).toBe("view changed");
});

test("notes of a meeting are told as such, and topics by their references", () => {
  expect(spokenField(field("text", "Lower it.", "Raise it."), "meeting_point")).toBe(
    "note, text: Lower it. → Raise it.",
  );
  expect(spokenField(field("deleted", "", "yes"), "meeting_point")).toBe("note deleted");
  expect(spokenField(field("deleted", "yes"), "viewpoint")).toBe("restored");
  expect(spokenField(field("agenda", "id", ""), "meeting", new Map([["id", "AIR 001"]]))).toBe(
    "agenda: AIR 001 → nothing",
  );
});
