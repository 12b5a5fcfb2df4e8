import { pointTool } from "../open/tools";
import type { useWalk } from "../open/walking/useWalk";
import type { Tool } from "../stage/tools/tool";

type Walk = ReturnType<typeof useWalk>;

/** Comes to stand at a point of a floor. */
export function jumpTool(walk: Walk): Tool {
  const about = { name: "jump", prompt: "Click the floor where you want to stand." };
  return pointTool(about, ({ point }) => {
    void walk.jump(point);
    return "done";
  });
}

/** Goes on behind a wall. */
export function throughTool(walk: Walk): Tool {
  const about = { name: "through", prompt: "Click the wall to step through." };
  return pointTool(about, ({ point }) => {
    void walk.through(point);
    return "done";
  });
}
