import { useQuery } from "@tanstack/react-query";
import { useCallback, useMemo } from "react";
import { useParams } from "react-router";
import { answerOf, api, type Viewpoint } from "../../api/client";
import { useModelAct } from "../../api/queries";
import type { Framed } from "../../stage/pictures";
import { fromView, toView } from "../document";
import { useSelection } from "../selection";
import { useSession, withErrorNotice } from "../session";
import { announce } from "../trail/cause";
import { useOpen } from "../useStage";
import { useViewState } from "../visibility/viewState";
import { isWhole } from "./frame";
import type { Brings } from "./shelfState";
import { useViewpointActs } from "./useViewpointActs";

const PICTURE_PX = 720;

/** The viewpoint that the address names, or the first one of the topic that it names, if it names one. */
export function useLinkedViewpoint() {
  const { viewpointId, topicId } = useParams();
  const ofTopic = useQuery({
    queryKey: ["topic of the address", topicId ?? ""],
    enabled: topicId !== undefined,
    queryFn: () =>
      answerOf(api.GET("/api/topics/{topic_id}", { params: { path: { topic_id: topicId ?? "" } } })),
  });
  const id = viewpointId ?? ofTopic.data?.topic.views[0];
  const { data, error } = useQuery({
    queryKey: ["viewpoint", id ?? ""],
    enabled: id !== undefined,
    queryFn: () =>
      answerOf(api.GET("/api/viewpoints/{viewpoint_id}", { params: { path: { viewpoint_id: id ?? "" } } })),
  });
  const coming = topicId !== undefined && ofTopic.isPending;
  return useMemo(
    () => ({ wanted: coming || (id !== undefined && !error), viewpoint: data ?? null }),
    [coming, id, data, error],
  );
}

/** Restore a viewpoint: eye, lens, what is shown, faded, hidden and picked, and the alternatives; or some of it. */
export function useShowViewpoint() {
  const { federation, stage, projectId } = useOpen();
  const { mutateAsync } = useModelAct(projectId);
  return useCallback(
    async (viewpoint: Viewpoint, atOnce = false, brings: Brings = "all") => {
      const { pose, look, picked, missing } = fromView(federation, viewpoint.view);
      if (brings !== "rest") {
        announce(`viewpoint: ${viewpoint.name}`);
        stage()?.go(pose, atOnce);
      }
      if (brings === "eye") return;
      useViewState.getState().see(look, `went to viewpoint ${viewpoint.name}`);
      useSelection.getState().pick(picked);
      for (const [what, name] of Object.entries(viewpoint.view.alternatives ?? {})) {
        const wanted = federation.models.find((m) => m.alternative_what === what && m.name === name);
        if (wanted && !wanted.stands) await mutateAsync({ id: wanted.id, act: "stand" });
      }
      if (missing)
        await withErrorNotice(async () => {
          const path = { params: { path: { viewpoint_id: viewpoint.id } } };
          const says = await answerOf(api.GET("/api/viewpoints/{viewpoint_id}/missing", path));
          useSession.getState().say(`${viewpoint.name}: ${says.join(" ")} Everything else is as saved.`);
        });
    },
    [federation, stage, mutateAsync],
  );
}

/** A picture without what says that it is one. */
export function bare(picture: string): string {
  return picture.replace(/^data:image\/png;base64,/, "");
}

/** How the picture of a view is framed, and how wide it is. */
export interface AsFramed {
  frame: Framed;
  widthPx: number;
}

/** The present view as a document; null where there is no stage. */
export function usePresentDocument() {
  const { federation, stage } = useOpen();
  return useCallback(() => {
    const view = stage();
    return view ? toView(federation, view.seen, useViewState.getState(), useSelection.getState().refs) : null;
  }, [federation, stage]);
}

/** The present view as a document, with its picture; null where there is no stage. */
export function usePresentView() {
  const { stage } = useOpen();
  const present = usePresentDocument();
  return useCallback(
    (framed: AsFramed | null = null) => {
      const view = stage();
      const document = present();
      if (!view || !document) return null;
      const { frame, widthPx } = framed ?? { frame: null, widthPx: PICTURE_PX };
      return {
        picture_png: bare(view.pictures.ofStage(widthPx, true, frame)),
        view: { ...document, frame: frame && !isWhole(frame) ? frame : null },
      };
    },
    [present, stage],
  );
}

/** Keep the present view under a name; the viewpoint that was made, or null where it could not be. */
export function useKeepView() {
  const { keep } = useViewpointActs();
  const present = usePresentView();
  return useCallback(
    async (name: string, framed: AsFramed | null = null) => {
      const now = present(framed);
      return now && keep({ name, ...now });
    },
    [present, keep],
  );
}
