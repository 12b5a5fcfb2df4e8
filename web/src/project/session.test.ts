import { beforeEach, describe, expect, test } from "vitest";
import type { Federation } from "../api/client";
import { ALL_SHOWN, cellKey, find, numberOf, orAloud, resolve, useSession } from "./session";

/** Three models of two components each; the last one is an alternative that does not stand. */
const federation = {
  models: ["arc", "air", "alt"].map((id, k) => ({
    id,
    first: 2 * k,
    stands: id !== "alt",
    global_ids: [`${id}-1`, `${id}-2`],
    level: [0, 1],
    discipline: [k % 2, k % 2],
  })),
} as unknown as Federation;

describe("components by number and by GlobalId", () => {
  test("lead there and back over all models", () => {
    for (let n = 0; n < 6; n++) {
      const found = find(federation, n);
      expect(found && numberOf(federation, found.model.id, found.globalId)).toBe(n);
    }
  });

  test("what is not there is not found", () => {
    expect(find(federation, -1)).toBeNull();
    expect(find(federation, 6)).toBeNull();
    expect(numberOf(federation, "arc", "air-1")).toBe(-1);
    expect(numberOf(federation, "gone", "arc-1")).toBe(-1);
  });
});

describe("what is shown", () => {
  test("alternatives that do not stand are hidden, everything else is shown", () => {
    expect(resolve(federation, ALL_SHOWN)).toEqual(["shown", "shown", "shown", "shown", "hidden", "hidden"]);
  });

  test("a cell takes its components along, and one that differs keeps its own state", () => {
    const cells = new Map([
      [cellKey(1, 0), "hidden" as const],
      [cellKey(0, 1), "faded" as const],
    ]);
    const components = new Map([[1, "shown" as const]]);
    expect(resolve(federation, { cells, components: new Map() }).slice(0, 4)).toEqual([
      "shown",
      "hidden",
      "faded",
      "shown",
    ]);
    expect(resolve(federation, { cells, components })[1]).toBe("shown");
  });

  test("no state brings an alternative back that does not stand", () => {
    expect(resolve(federation, { cells: new Map(), components: new Map([[4, "shown"]]) })[4]).toBe("hidden");
  });
});

describe("the session", () => {
  beforeEach(() => useSession.getState().reset());
  const now = () => useSession.getState();
  const hidden = (n: number) => ({ cells: new Map(), components: new Map([[n, "hidden" as const]]) });

  test("undo steps back through what was shown, and no farther than the beginning", () => {
    now().see(hidden(1));
    now().see(hidden(2));
    now().undo();
    expect(now().visibility.components.get(1)).toBe("hidden");
    now().undo();
    now().undo();
    expect(now().visibility).toBe(ALL_SHOWN);
  });

  test("a hundred steps are kept", () => {
    for (let n = 0; n < 130; n++) now().see(hidden(n));
    for (let n = 0; n < 200; n++) now().undo();
    expect([...now().visibility.components.keys()]).toEqual([29]);
  });

  test("a task that is opened unfolds the desk", () => {
    now().fold("desk", true);
    now().fold("board", true);
    now().open("routes");
    expect(now().task).toBe("routes");
    expect(now().folded).toEqual({ board: true, desk: false });
  });

  test("what goes wrong is said in its own sentence, with no undo of something else", async () => {
    now().say("One hidden.", () => undefined);
    await orAloud(() => Promise.reject(new Error("There is no such room; reload the page.")));
    expect(now().notice).toEqual({ text: "There is no such room; reload the page." });
    await orAloud(() => Promise.resolve());
    expect(now().notice?.text).toContain("no such room");
    now().hush();
    expect(now().notice).toBeNull();
  });

  test("the next project begins with nothing picked, hidden or said", () => {
    now().see(hidden(1));
    now().pick([1, 2]);
    now().limitDepth(5);
    now().reset();
    expect([now().picked, now().past, now().depthLimitM, now().visibility]).toEqual([
      [],
      [],
      null,
      ALL_SHOWN,
    ]);
  });
});
