import { useMemo } from "react";
import type { Vector2, Vector3 } from "three";
import { answerOf, api } from "../../api/client";
import { usePerson } from "../../api/person";
import { eyeOf, poseOf } from "../document";
import { inProject, onStage } from "../origin";
import { useSession, withErrorNotice } from "../session";
import { announce } from "../trail/cause";
import { useOpen } from "../useStage";
import type { Markup } from "../visibility/viewState";
import { addMarkup, type Kind, NAMES, putMarkup, useMarking } from "./marking";

type Place = readonly [number, number];

/** Words stand so far beside what they are about, and no nearer to the frame's edge than this. */
const ASIDE = { x: 0.16, y: 0.2 };
const MOST = 0.86;

/** Placing, moving and going back to markups; where they stand is the core's to say. */
export function usePlacing() {
  const { federation, stage } = useOpen();
  return useMemo(() => {
    const frame = () => {
      const view = stage();
      if (!view) throw new Error("The stage is still loading. Try again in a moment.");
      return { eye: eyeOf(view.seen, federation.origin_m).eye, aspect: view.aspect };
    };
    const within = (share: number) => Math.min(MOST, Math.max(-MOST, share));
    const acts = {
      /** The point of the model as the document has it. */
      there: (point: Vector3) => inProject(point, federation.origin_m),
      here: (point_m: readonly number[]) => onStage(point_m, federation.origin_m),
      /** Keep a markup where it was drawn; whether that could be. */
      place: (kind: Kind, drawn: readonly Place[], through_m: number[], text = "") =>
        withErrorNotice(async () => {
          const { style } = useMarking.getState();
          const made = await answerOf(
            api.POST("/api/markups/placed", {
              body: {
                ...frame(),
                style,
                id: crypto.randomUUID().slice(0, 8),
                kind,
                drawn: drawn.map(([x, y]) => [x, y]),
                through_m,
                text,
              },
            }),
          );
          const wrong = addMarkup({ ...made, by: usePerson.getState().name, at: new Date().toISOString() });
          if (wrong) useSession.getState().say(wrong);
        }),
      /** Move a markup in its plane from one place of the frame to another, or one of its points. */
      move: (markup: Markup, start: Vector2 | Place, end: Vector2 | Place, point: number | null = null) =>
        withErrorNotice(async () => {
          const pair = (at: Vector2 | Place) => ("x" in at ? [at.x, at.y] : [at[0], at[1]]);
          const moved = await answerOf(
            api.POST("/api/markups/moved", {
              body: { ...frame(), markup, start: pair(start), end: pair(end), point },
            }),
          );
          putMarkup(moved, `${point === null ? "moved" : "reshaped"} a ${NAMES[markup.kind]}`);
        }),
      /** Write words beside a point about the origin, with a line to it; a point that is out of sight is refused. */
      write: async (point: Vector3, words: string) => {
        const view = stage()?.main;
        if (!view?.shows(point)) {
          useSession.getState().say("It is out of view. Look at it first, then write on the view.");
          return;
        }
        const { x, y } = view.camera.project(point);
        const text = [within(x + ASIDE.x), within(y + ASIDE.y)] as const;
        if (await acts.place("callout", [[x, y], text], acts.there(point), words))
          useSession.getState().say(`Written on the view: ${words}.`);
      },
      /** Go to where a markup was drawn from. */
      back: (markup: Markup) => {
        const limits = { through_m: 0, depth_m: null };
        announce("where a markup was drawn");
        stage()?.go(poseOf({ eye: markup.eye, limits }, federation.origin_m));
      },
    };
    return acts;
  }, [federation, stage]);
}
