import { useRef } from "react";
import { Vector3 } from "three";
import { useCutting, withDragged } from "../open/cuts/cutting";
import { sidesOf } from "../open/cuts/shape";
import { onStage } from "../open/origin";
import { useOpen } from "../open/useStage";
import { useViewState } from "../open/visibility/viewState";
import { Standing } from "./apart";
import { CutTab, TOP } from "./CutTab";
import { useCutStage } from "./faces";

/** The cuts on the stage, each plane with a tab to drag it by; a box has all six while it is open on the desk, else one. */
export function CutsOnStage() {
  useCutStage();
  const { federation } = useOpen();
  const cuts = useViewState((s) => s.cuts);
  const dragged = useCutting((s) => s.dragged);
  const opened = useCutting((s) => s.opened);
  const standing = useRef(new Standing());
  return withDragged(cuts, dragged)
    .filter((cut) => !cut.off)
    .flatMap((cut) =>
      sidesOf(cut.shape).flatMap((side, k) =>
        cut.shape.kind === "box" && cut.id !== opened && k !== TOP ? [] : [{ cut, side, k }],
      ),
    )
    .map(({ cut, side, k }, order) => (
      <CutTab
        key={`${cut.id}/${k}`}
        cut={cut}
        side={k}
        order={order}
        standing={standing.current}
        normal={new Vector3().fromArray(side.normal)}
        point={onStage(side.point_m, federation.origin_m)}
      />
    ));
}
