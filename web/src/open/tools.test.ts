import { Vector2 } from "three";
import { afterEach, expect, test } from "vitest";
import type { Aim } from "../stage/tools/tool";
import type { View } from "../stage/view";
import { endProject } from "./perProject";
import { useSession } from "./session";
import { LOCKED, pointTool, useTools } from "./tools";

const AIM = {} as Aim;
const NO_VIEW = {} as View;
const said = () => useSession.getState().notice?.text;
afterEach(endProject);

test("what a tool said of a click that missed goes with the tool", () => {
  const tool = pointTool({ name: "two points", prompt: "Click two points." }, () => "more");
  useTools.getState().take(tool);
  tool.click?.(null, new Vector2(), NO_VIEW);
  expect(said()).toContain("Nothing is there.");
  useTools.getState().putAway();
  expect([useTools.getState().tool, said()]).toEqual([null, undefined]);
});

test("what is said by a tool that has done its work stays", () => {
  const say = useSession.getState().say;
  const tool = pointTool({ name: "one point", prompt: "Click a point." }, () => {
    say("Cut made.");
    return "done";
  });
  useTools.getState().take(tool);
  tool.click?.(AIM, new Vector2(), NO_VIEW);
  expect([useTools.getState().tool, said()]).toEqual([null, "Cut made."]);
});

test("that the view is locked is not said any more once it is not", () => {
  useTools.getState().lock(true);
  useSession.getState().say(LOCKED);
  useTools.getState().lock(false);
  expect(said()).toBeUndefined();
});
