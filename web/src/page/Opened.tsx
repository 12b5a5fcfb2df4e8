import { useEffect, useState } from "react";
import { Vector3 } from "three";
import { addCut } from "../open/cuts/cutting";
import { spokenHeight } from "../open/cuts/shape";
import { levelAt } from "../open/levels";
import { inProject } from "../open/origin";
import { useShownLevel } from "../open/plan/storey";
import { useKeyPlan } from "../open/plan/useInstrument";
import { announce } from "../open/trail/cause";
import { useOpen } from "../open/useStage";
import { Mark } from "../parts/Mark";
import { GridLine } from "../stage/layers/gridLine";
import { closed, forward, isOpened, type Pose } from "../stage/pose";
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
    view.layer(GridLine).show({ tag: axis.tag, ends: [end(axis.ends[0]), end(axis.ends[1])] });
    return () => view.layer(GridLine).show(null);
  }, [tag, federation, stage]);
  if (!at || !pose) return null;
  const close = () => {
    const view = stage();
    announce("closed");
    if (view) view.go(closed(view.seen));
  };
  // The cut is where the view was opened, and stays when one turns.
  const cut = () => {
    const sight = forward(pose);
    const point = pose.eye.clone().addScaledVector(sight, pose.throughM);
    const level = sight.z < -0.9999;
    const point_m = inProject(point, federation.origin_m);
    const height_m = point_m[2] ?? 0;
    addCut({
      name: level ? spokenHeight(federation, height_m) : at.axis ? `Grid ${at.axis.tag}` : "Opening view",
      shape: level
        ? { kind: "plane", point_m: [0, 0, height_m], normal: [0, 0, 1] }
        : { kind: "plane", point_m, normal: sight.negate().toArray() },
    });
    close();
  };
  return <Mark text={at.text} act="Close" onAct={close} more={{ act: "Make it a cut", onAct: cut }} />;
}
