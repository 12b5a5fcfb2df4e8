import { useRef } from "react";
import { Vector3 } from "three";
import type { Federation } from "../api/client";
import { useAligning } from "../models/alignState";
import { useSession } from "../open/session";
import { useTools } from "../open/tools";
import { presentWalker } from "../open/walking/useWalk";
import { rebaseRoutes } from "../routes/rebase";
import type { Stage } from "../stage/stage";

/**
 * Where a newer building is counted from another origin, everything that is kept by points about it moves along, so
 * that nothing on the screen does.
 */
export function useOrigin() {
  const last = useRef<readonly number[] | null>(null);
  return (stage: Stage, { origin_m }: Federation, stopWalking: () => void) => {
    const before = last.current;
    last.current = origin_m;
    const by = origin_m.map((v, i) => (before?.[i] ?? v) - v);
    if (!by.some((v) => v !== 0)) return;
    // The ground under the feet belongs to the origin of before.
    if (presentWalker()) {
      stopWalking();
      useSession.getState().say("The building has grown. Start walking again (M).");
    }
    const { tool, take } = useTools.getState();
    if (tool?.bound) take(null);
    stage.rebase(new Vector3().fromArray(by));
    rebaseRoutes(by);
    useAligning.getState().rebase(by);
  };
}
