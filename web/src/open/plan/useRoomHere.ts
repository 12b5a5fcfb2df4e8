import { useEffect, useState } from "react";
import type { Pose } from "../../stage/pose";
import { offStorey } from "../levels";
import { useOpen } from "../useStage";
import { type KeyPlan, roomAt } from "./plan";

/** The room that the eye is in, of those of a plan; null for none. */
export function useRoomHere(plan: KeyPlan | null, level: number): number | null {
  const { federation, eye } = useOpen();
  const [room, setRoom] = useState<number | null>(null);
  useEffect(() => {
    const place = ({ eye: at }: Pose) => {
      const here = offStorey(federation.levels, level, at.z) === "no";
      setRoom((here && plan ? roomAt(plan, at)?.index : null) ?? null);
    };
    return eye.listen(place);
  }, [eye, plan, level, federation]);
  return room;
}
