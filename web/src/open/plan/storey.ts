import { useEffect } from "react";
import type { Federation } from "../../api/client";
import { perProject } from "../perProject";
import { useOpen } from "../useStage";
import { useWalkState } from "../walking/walkState";
import { storeyOf } from "./plan";

interface Storey {
  /** Chosen by hand, until the eye comes to another storey or somebody walks or flies. */
  chosen: number | null;
  /** What is meant otherwise, and whether the eye is within the building. */
  level: number;
  within: boolean;
}

const useStorey = perProject<Storey>(() => ({ chosen: null, level: 0, within: false }));

const existing = ({ levels }: Pick<Federation, "levels">, level: number) =>
  Math.min(level, levels.length - 1);

/** Keeps up with the eye; once on the page. */
export function useStoreyFollows(): void {
  const { federation, eye } = useOpen();
  const orbiting = useWalkState((s) => s.mode === "orbit");
  useEffect(
    () =>
      eye.listen((pose) => {
        const now = storeyOf(federation, pose.eye);
        const { level, within } = useStorey.getState();
        if (now.level !== level) useStorey.setState({ ...now, chosen: null });
        else if (now.within !== within) useStorey.setState({ within: now.within });
      }),
    [eye, federation],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: what was chosen ends when it changes
  useEffect(() => useStorey.setState({ chosen: null }), [orbiting]);
}

/** The storey that is meant: on the key plan, by a fit, by a cut and by lifting a lid. */
export function useShownLevel() {
  const { federation } = useOpen();
  const { chosen, level, within } = useStorey();
  return { level: existing(federation, chosen ?? level), chosen, inside: within, choose };
}

const choose = (chosen: number | null): void => useStorey.setState({ chosen });

/** The same, for what is done by name or key. */
export function shownLevel(federation: Pick<Federation, "levels">): number {
  const { chosen, level } = useStorey.getState();
  return existing(federation, chosen ?? level);
}
