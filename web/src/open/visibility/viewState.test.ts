import { afterEach, expect, test, vi } from "vitest";
import type { Shapes } from "../../api/client";
import { endProject } from "../perProject";
import { federationOf } from "../testFederation";
import { MOST_STEPS, withStep } from "./history";
import { EVERYTHING, useViewState } from "./viewState";

type Rule = Shapes["Rule"];
const FEDERATION = federationOf({
  arc: [
    ["a", 0, 0],
    ["b", 1, 0],
  ],
  str: [["c", 0, 1]],
});
const LEVEL: Rule["select"] = { kind: "of", what: "level", value: "Level 00" };

/** Answers that wait until a test gives them: states for the rules that were asked for. */
interface Asked {
  rules: Rule[];
  give: (states: number[], done?: string) => void;
}
const { waiting } = vi.hoisted(() => ({ waiting: [] as Asked[] }));

vi.mock("../../api/resolved", () => ({
  fetchResolved: (_: string, rules: Rule[]) =>
    new Promise((resolve) => {
      const give = (states: number[], done = "") =>
        resolve({
          done,
          lines: rules.map((rule) => ({ rule, done, says: "", selects: 1, decides: 1, gone: 0 })),
          states: new Uint8Array(states),
          reasons: new Int16Array(states.map(() => -1)),
          tints: null,
        });
      waiting.push({ rules, give });
    }),
}));

afterEach(() => {
  endProject();
  waiting.length = 0;
});

const now = () => useViewState.getState();
const states = () => [...now().states].join("");
const asked = (count: number) => vi.waitFor(() => expect(waiting).toHaveLength(count));
const answered = () => vi.waitFor(() => expect(now().asking).toBe(false));

async function open() {
  now().follow(FEDERATION);
  await asked(1);
  waiting[0]?.give([2, 2, 2]);
  await answered();
}

test("the next frame shows what is expected, and the core's answer counts", async () => {
  await open();
  now().wish({ select: LEVEL, effect: "hide" });
  expect(states()).toBe("020");
  await asked(2);
  waiting[1]?.give([0, 2, 1], "hid Level 00");
  await answered();
  expect(states()).toBe("021");
  expect(now().history.steps.map((step) => step.name)).toEqual(["", "hid Level 00"]);
});

test("an answer to what was asked before is not taken", async () => {
  await open();
  now().wish({ select: LEVEL, effect: "hide" });
  await asked(2);
  await new Promise((done) => setTimeout(done, 2));
  now().wish({ select: { kind: "all" }, effect: "show" });
  await asked(3);
  waiting[2]?.give([2, 2, 2], "showed everything");
  await answered();
  waiting[1]?.give([0, 0, 0], "hid Level 00");
  await new Promise((done) => setTimeout(done, 0));
  expect(states()).toBe("222");
  expect(now().history.steps.map((step) => step.name)).toEqual(["", "hid Level 00", "showed everything"]);
});

test("undo and redo go by name, and restore every state at once", async () => {
  await open();
  now().wish({ select: LEVEL, effect: "hide" });
  await asked(2);
  waiting[1]?.give([0, 2, 0], "hid Level 00");
  await answered();
  now().wish({ select: { kind: "of", what: "discipline", value: "ARC" }, effect: "fade" });
  await asked(3);
  waiting[2]?.give([1, 1, 0], "faded Architecture");
  await answered();
  expect(now().undo()).toBe("faded Architecture");
  expect(states()).toBe("020");
  expect(now().undo()).toBe("hid Level 00");
  expect(states()).toBe("222");
  expect(now().undo()).toBeNull();
  expect(now().redo()).toBe("hid Level 00");
  expect(states()).toBe("020");
  now().see(EVERYTHING, "showed everything");
  expect(now().redo()).toBeNull();
  expect(now().history.steps.map((s) => s.name)).toEqual(["", "hid Level 00", "showed everything"]);
});

test("what changes no rule asks nothing, and what was answered is not asked for again", async () => {
  await open();
  now().change({ style: "lines" }, "lines only");
  now().change({ depthM: 4 }, "seen to 4 m");
  expect([waiting.length, now().style, now().asking]).toEqual([1, "lines", false]);
  now().wish({ select: LEVEL, effect: "hide" });
  await asked(2);
  waiting[1]?.give([0, 2, 0], "hid Level 00");
  await answered();
  now().undo();
  now().redo();
  expect([waiting.length, states(), now().lines.length]).toEqual([2, "020", 1]);
  now().undo();
  expect([waiting.length, states(), now().lines.length, now().depthM]).toEqual([2, "222", 0, 4]);
});

test("a rule is asked for anew for another version, and an answer of another length is not drawn", async () => {
  await open();
  now().wish({ select: LEVEL, effect: "hide" });
  await asked(2);
  const grown = federationOf({
    arc: [
      ["a", 0, 0],
      ["n", 0, 0],
      ["b", 1, 0],
    ],
    str: [["c", 0, 1]],
  });
  now().follow(grown);
  await asked(3);
  expect(waiting[2]?.rules[0]?.select).toEqual(LEVEL);
  expect(states()).toBe("0020");
  waiting[2]?.give([0, 0, 2]);
  await new Promise((done) => setTimeout(done, 0));
  expect(states()).toBe("0020");
});

test("nothing is left for the next project, not even an answer uploading", async () => {
  await open();
  now().wish({ select: LEVEL, effect: "hide" });
  await asked(2);
  endProject();
  waiting[1]?.give([0, 0, 0]);
  await new Promise((done) => setTimeout(done, 0));
  expect([now().rules, now().states.length, now().history.steps.length, now().federation]).toEqual([
    [],
    0,
    1,
    null,
  ]);
});

test("so many steps are kept, and a new one ends what was undone", () => {
  const step = (name: string) => ({ seen: 0, name, at: "" });
  let history = { steps: [step("begin")], at: 0 };
  for (let i = 0; i < MOST_STEPS + 20; i++) history = withStep(history, step(String(i))) as typeof history;
  expect([history.steps.length, history.at]).toEqual([MOST_STEPS, MOST_STEPS - 1]);
  const next = withStep({ ...history, at: 3 }, step("other"));
  expect([next.steps.length, next.steps.at(-1)?.name]).toEqual([5, "other"]);
});
