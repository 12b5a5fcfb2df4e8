import { useCallback } from "react";
import type { Shapes } from "../api/client";
import { useOpen } from "../open/useStage";
import { isWhole } from "../open/views/frame";
import { useViewpointActs } from "../open/views/useViewpointActs";
import { bare, useKeepView, useShowViewpoint } from "../open/views/viewpoints";
import type { Framed } from "../stage/pictures";
import { type ToKeep, useFraming } from "./framing";

/** Begin to frame a picture: of the present view that is to be kept, or of a viewpoint, which is gone to. */
export function useBeginFraming() {
  const { stage } = useOpen();
  const show = useShowViewpoint();
  return useCallback(
    async (of: { viewpoint: Shapes["Viewpoint"] } | ToKeep) => {
      const kept = "viewpoint" in of ? of.viewpoint : null;
      if (kept) await show(kept, true);
      const aspect = stage()?.main.aspect ?? 1.6;
      const frame: Framed = kept?.view.frame ?? { aspect, left: -1, right: 1, bottom: -1, top: 1 };
      useFraming.getState().put({ of, frame, widthPx: kept?.large ? 2400 : 720 });
    },
    [stage, show],
  );
}

/** Draw the picture as it is framed, and keep it with its view; whether it was kept. */
export function useKeepFramed() {
  const { stage } = useOpen();
  const keep = useKeepView();
  const { reframe } = useViewpointActs();
  return useCallback(async () => {
    const { of, frame, widthPx } = useFraming.getState();
    const view = stage();
    if (!of || !frame || !view) return false;
    if ("name" in of) {
      const made = await keep(of.name, { frame, widthPx });
      if (made) of.kept();
      return made !== null;
    }
    const picture_png = bare(view.pictures.ofStage(widthPx, true, frame));
    return reframe(of.viewpoint, { picture_png, frame: isWhole(frame) ? null : frame });
  }, [stage, keep, reframe]);
}
