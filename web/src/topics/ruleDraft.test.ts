import { expect, test } from "vitest";
import { draftOf, listOf, wishOf } from "./ruleDraft";

const RULES = {
  reference: { disciplines: true, most_disciplines: 2, joined_by: "-", digits: 3 },
  statuses: [
    { name: "open", next: ["done"], end: false, was: "" },
    { name: "done", next: ["open"], end: true, was: "" },
  ],
  kinds: ["problem"],
  priorities: ["high", "low"],
};

test("what follows a status follows it under its other name too", () => {
  const draft = draftOf(RULES);
  const statuses = draft.statuses.map((each) =>
    each.name === "done" ? { ...each, name: " settled " } : each,
  );
  const wish = wishOf({ ...draft, statuses, priorities: "now, , later" });
  expect(wish.statuses).toEqual([
    { name: "open", next: ["settled"], end: false, was: "open" },
    { name: "settled", next: ["open"], end: true, was: "done" },
  ]);
  expect(wish.priorities).toEqual(["now", "later"]);
});

test("a status that was taken away follows none any more", () => {
  const draft = draftOf(RULES);
  const wish = wishOf({ ...draft, statuses: draft.statuses.slice(0, 1) });
  expect(wish.statuses).toEqual([{ name: "open", next: [], end: false, was: "open" }]);
});

test("words have commas between them", () => {
  expect(listOf(" a,b ,, c d")).toEqual(["a", "b", "c d"]);
});
