import { Vector3 } from "three";
import { useCutting, withDragged } from "../open/cuts/cutting";
import { sidesOf } from "../open/cuts/shape";
import { onStage } from "../open/origin";
import { useOpen } from "../open/useStage";
import { useViewState } from "../open/visibility/viewState";
import { CutTab } from "./CutTab";
import { useCutStage } from "./faces";

/** The cuts on the stage, each plane with a tab to drag it by. */
export function CutsOnStage() {
  useCutStage();
  const { federation } = useOpen();
  const cuts = useViewState((s) => s.cuts);
  const dragged = useCutting((s) => s.dragged);
  return withDragged(cuts, dragged)
    .filter((cut) => !cut.off)
    .flatMap((cut, nth) =>
      sidesOf(cut.shape).map((side, k) => (
        <CutTab
          // biome-ignore lint/suspicious/noArrayIndexKey: the sides of a cut keep their order
          key={`${cut.id}/${k}`}
          cut={cut}
          side={k}
          order={nth + k}
          normal={new Vector3().fromArray(side.normal)}
          point={onStage(side.point_m, federation.origin_m)}
        />
      )),
    );
}
