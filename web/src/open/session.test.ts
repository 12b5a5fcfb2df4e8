import { beforeEach, describe, expect, test } from "vitest";
import { endProject } from "./perProject";
import { useSession, withErrorNotice } from "./session";

describe("the session", () => {
  beforeEach(endProject);
  const now = () => useSession.getState();
  test("a task that is opened unfolds the desk", () => {
    now().fold("desk", true);
    now().fold("board", true);
    now().open("routes");
    expect(now().task).toBe("routes");
    expect(now().folded).toEqual({ board: true, desk: false });
  });

  test("what goes wrong is said in its own sentence, with no undo of something else", async () => {
    now().say("One hidden.", () => undefined);
    await withErrorNotice(() => Promise.reject(new Error("There is no such room; reload the page.")));
    expect(now().notice).toEqual({ text: "There is no such room; reload the page.", stays: false });
    await withErrorNotice(() => Promise.resolve());
    expect(now().notice?.text).toContain("no such room");
    now().hush();
    expect(now().notice).toBeNull();
  });

  test("the next project begins with nothing said and nothing folded", () => {
    now().say("One hidden.");
    now().fold("board", true);
    endProject();
    expect([now().notice, now().folded.board, now().task]).toEqual([null, false, "component"]);
  });
});
