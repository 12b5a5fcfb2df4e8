import { useMemo } from "react";
import type { Action } from "../open/action";
import { askedPoint } from "../open/asked";
import { useSession } from "../open/session";
import { useTools } from "../open/tools";
import { announce } from "../open/trail/cause";
import { useOpen } from "../open/useStage";
import { useWalk } from "../open/walking/useWalk";
import { useWalkState } from "../open/walking/walkState";
import { jumpTool, throughTool } from "./tools";

const RISE_M = 0.5;

/** Going on foot, flying, and coming to stand. */
export function useWalkActions(): readonly Action[] {
  const { stage } = useOpen();
  const walk = useWalk();
  return useMemo<readonly Action[]>(() => {
    const { open } = useSession.getState();
    const tools = useTools.getState();
    /** A storey on foot; who has no feet is raised or lowered where they are. */
    const rise = (up: 1 | -1) => () => {
      const view = stage();
      if (useWalkState.getState().mode === "walk" || !view) return walk.storey(up);
      const to = view.seen;
      to.eye.z += up * RISE_M;
      to.target.z += up * RISE_M;
      announce(up > 0 ? "eye raised" : "eye lowered");
      view.go(to);
    };
    return [
      {
        group: "Walk",
        name: "Walk or stop walking",
        key: "m",
        run: walk.toggleWalk,
      },
      {
        group: "Walk",
        name: "Fly or stop flying",
        key: "f",
        run: walk.toggleFly,
      },
      {
        group: "Walk",
        name: "Jump to a point of a floor",
        key: "j",
        menu: "Stand here",
        run: () => {
          const point = askedPoint();
          if (point) void walk.jump(point);
          else tools.take(jumpTool(walk));
        },
      },
      { group: "Walk", name: "Step through a wall", key: "n", run: () => tools.take(throughTool(walk)) },
      { group: "Walk", name: "Up one storey, or raise the eye", key: "pageup", run: rise(1) },
      { group: "Walk", name: "Down one storey, or lower the eye", key: "pagedown", run: rise(-1) },
      {
        group: "Walk",
        name: "View from behind or through the eyes",
        key: "h",
        run: () => walk.showBehind(!useWalkState.getState().behind),
      },
      { group: "Walk", name: "Find a route", run: () => open("routes") },
    ];
  }, [stage, walk]);
}
