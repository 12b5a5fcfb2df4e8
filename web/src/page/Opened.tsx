import { useEffect, useState } from "react";
import { Vector3 } from "three";
import { useKeyPlan, useShownLevel } from "../keyplan/useInstrument";
import { levelAt } from "../open/levels";
import { useOpen } from "../open/useStage";
import { Mark } from "../parts/Mark";
import { closed, isOpened, type Pose } from "../stage/pose";
import { announce } from "../trail/cause";
import { openedAt } from "./openedAt";

/** A parallel view that is opened says where, marks the grid line it is opened at, and can be closed. */
export function Opened() {
  const { federation, stage, eye } = useOpen();
  const { level } = useShownLevel();
  const plan = useKeyPlan(level);
  const [pose, setPose] = useState<Pose | null>(null);
  useEffect(() => eye.listen((now) => setPose((last) => (isOpened(now) ? { ...now } : last && null))), [eye]);
  const at = pose && openedAt(pose, federation.levels, plan?.axes ?? []);
  const tag = at?.axis?.tag;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the line of a tag is always the same
  useEffect(() => {
    const view = stage();
    const axis = at?.axis;
    if (!view || !axis || !pose) return;
    const floorM = federation.levels[levelAt(federation.levels, pose.eye.z)]?.elevation_m ?? 0;
    const end = ([x = 0, y = 0]: number[] = []) => new Vector3(x, y, floorM);
    view.gridLine.show({ tag: axis.tag, ends: [end(axis.ends[0]), end(axis.ends[1])] });
    return () => view.gridLine.show(null);
  }, [tag, federation, stage]);
  if (!at) return null;
  return (
    <Mark
      text={at.text}
      act="Close it"
      onAct={() => {
        const view = stage();
        announce("closed");
        if (view) view.go(closed(view.seen));
      }}
    />
  );
}
