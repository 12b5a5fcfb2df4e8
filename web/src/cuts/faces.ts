import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Vector3 } from "three";
import { answerOf, api, bytesOf, type Shapes } from "../api/client";
import { useCutting, withDragged } from "../open/cuts/cutting";
import { clipOf, sidesOf } from "../open/cuts/shape";
import { numberingOf } from "../open/numbering";
import { useOpen } from "../open/useStage";
import { type Rule, useViewState } from "../open/visibility/viewState";
import { Clips, clipPlane } from "../stage/clips";
import type { DrawnFace } from "../stage/layers/cutFaces";

type CutFaces = Shapes["CutFaces"];

function drawn(face: CutFaces["faces"][number]): DrawnFace {
  const normal = new Vector3().fromArray(face.normal);
  return {
    plane: clipPlane(normal, new Vector3().fromArray(face.point_m)),
    triangles: new Float32Array(bytesOf(face.triangles)),
    of: new Int32Array(bytesOf(face.of)),
    lines: new Float32Array(bytesOf(face.lines)),
  };
}

/** What the cuts go through, as the core has it; nothing while one is dragged. */
export function useCutFaces() {
  const { projectId, federation } = useOpen();
  const cuts = useViewState((s) => s.cuts);
  const whole = useViewState((s) => s.whole);
  const rules = useViewState((s) => s.rules);
  const dragged = useCutting((s) => s.dragged !== null);
  const on = cuts.filter((cut) => !cut.off).map(({ id, shape }) => ({ id, shape, name: "", off: false }));
  return useQuery({
    queryKey: ["cuts", projectId, federation.version, on, whole, rules],
    enabled: on.length > 0 && !dragged,
    gcTime: 60_000,
    queryFn: () =>
      answerOf(
        api.POST("/api/projects/{project_id}/cuts/faces", {
          params: { path: { project_id: projectId } },
          body: { cuts: on, rules: rules as Rule[], whole: { kind: "these", of: whole } },
        }),
      ),
  });
}

/** Cuts the stage by the cuts of the view: at once by their planes, at rest with the core's faces. */
export function useCutStage(): void {
  const { stage, federation } = useOpen();
  const cuts = useViewState((s) => s.cuts);
  const whole = useViewState((s) => s.whole);
  const dragged = useCutting((s) => s.dragged);
  const { data } = useCutFaces();
  useEffect(() => {
    const spared = new Set(numberingOf(federation).numbersOf({ kind: "these", of: whole }));
    const planes = withDragged(cuts, dragged)
      .filter((cut) => !cut.off)
      .flatMap((cut) => sidesOf(cut.shape).map((side) => clipOf(side, federation.origin_m)));
    stage()?.building.setClips(new Clips(planes, spared));
  }, [stage, federation, cuts, whole, dragged]);
  useEffect(() => {
    const current = data?.version === federation.version ? data.faces.map(drawn) : [];
    stage()?.cutFaces.show(current);
  }, [stage, federation, data]);
}
