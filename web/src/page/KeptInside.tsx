import { useEffect, useState } from "react";
import { announce } from "../open/trail/cause";
import { useOpen, useStageNews } from "../open/useStage";
import { Mark } from "../parts/Mark";
import type { Pose } from "../stage/pose";

const SAME_M = 0.05;

/** A wall keeps the eye in the room, or the room is looked into through it. */
export function KeptInside() {
  const { eye, stage } = useOpen();
  const keptAt = useStageNews((s) => s.keptAt);
  const [where, setWhere] = useState<"free" | "kept" | "behind">("free");
  useEffect(() => {
    const tell = (pose: Pose) => {
      const kept = keptAt !== null && pose.eye.distanceTo(keptAt) < SAME_M;
      const behind = pose.throughM > 0 && pose.projection === "perspective";
      setWhere(behind ? "behind" : kept ? "kept" : "free");
    };
    if (eye.last) tell(eye.last);
    return eye.listen(tell);
  }, [eye, keptAt]);
  if (where === "behind")
    return (
      <Mark
        text="You look into the room through the wall behind you."
        act="Back inside"
        onAct={() => {
          announce("back inside");
          stage()?.backInside();
        }}
      />
    );
  if (where !== "kept") return null;
  return (
    <Mark
      text="The wall keeps you inside. Hold Alt to leave."
      act="Look in through it"
      onAct={() => {
        announce("through the wall behind");
        stage()?.lookThrough();
      }}
    />
  );
}
