import { Vector3 } from "three";
import { useCutting, withDragged } from "../open/cuts/cutting";
import { sidesOf } from "../open/cuts/shape";
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
  const origin = new Vector3().fromArray(federation.origin_m);
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
          point={new Vector3().fromArray(side.point_m).sub(origin)}
        />
      )),
    );
}
