import { expect, test } from "vitest";
import type { Shapes } from "../../api/client";
import { federationOf } from "../testFederation";
import { expected } from "./expected";
import { cellOf } from "./selectors";
import { plain } from "./viewState";

type Rule = Shapes["Rule"];
const FEDERATION = federationOf(
  {
    arc: [
      ["a", 0, 0],
      ["b", 1, 0],
      ["c", -1, 0],
    ],
    str: [
      ["d", 0, 1],
      ["e", 1, 1],
    ],
    alt: [["f", 0, 0]],
  },
  {},
  ["alt"],
);
const rule = (select: Rule["select"], effect: Rule["effect"]): Rule => ({
  select,
  effect,
  colour: null,
  by: "",
  at: "",
  why: "",
  off: false,
});
const after = (select: Rule["select"], effect: Rule["effect"]) => {
  const states = expected(FEDERATION, plain(FEDERATION), rule(select, effect));
  return states && [...states].join("");
};

test("without a rule everything that stands is shown", () => {
  expect([...plain(FEDERATION)].join("")).toBe("222220");
});

test("cells, levels, disciplines and components one by one are shown as expected at once", () => {
  expect(after(cellOf(FEDERATION, 1, 0), "hide")).toBe("202220");
  expect(after(cellOf(FEDERATION, 0, null), "fade")).toBe("122120");
  expect(after(cellOf(FEDERATION, null, 1), "hide")).toBe("222000");
  expect(after(cellOf(FEDERATION, -1, null), "hide")).toBe("220220");
  expect(after({ kind: "these", of: { str: ["d"], arc: ["c"] } }, "only")).toBe("002200");
  expect(after({ kind: "all_but", of: { kind: "these", of: { arc: ["a"] } } }, "fade")).toBe("211110");
  expect(after({ kind: "all" }, "show")).toBe("222220");
  expect(after(cellOf(FEDERATION, 0, 0), "fade_rest")).toBe("211110");
});

test("what the page has no table for waits for the core", () => {
  expect(after({ kind: "of", what: "type", value: "W1" }, "hide")).toBeNull();
  expect(after({ kind: "all_but", of: { kind: "of", what: "room", value: "1" } }, "hide")).toBeNull();
  expect(after({ kind: "of", what: "level", value: "Level 77" }, "hide")).toBeNull();
  expect(after({ kind: "all" }, "tint")).toBeNull();
});
