import { useMemo } from "react";
import type { Vector2, Vector3 } from "three";
import { COLOURS, type Kind, useMarking } from "../open/markups/marking";
import { usePlacing } from "../open/markups/usePlacing";
import { useSession } from "../open/session";
import { useTools } from "../open/tools";
import { useOpen } from "../open/useStage";
import { Markups } from "../stage/layers/markups";
import { type Drawing, DrawnByHand, surfaceAt } from "../stage/tools/markDrags";
import type { Tool } from "../stage/tools/tool";

/** What is drawn by hand; a path comes with a file. */
export type ByHand = Exclude<Kind, "path">;
type Dragged = Exclude<ByHand, "text" | "polyline">;

const DRAWINGS: Readonly<Record<Dragged, readonly [Drawing, string]>> = {
  cloud: ["corners", "Drag a rectangle around the place."],
  rectangle: ["corners", "Drag from corner to corner."],
  ellipse: ["round", "Drag from corner to corner around it."],
  arrow: ["ends", "Drag towards the place; the arrowhead is where you release."],
  line: ["ends", "Drag from one end to the other."],
  callout: ["ends", "Drag from the place to where the text goes."],
  freehand: ["way", "Draw with the button pressed, or with a pen."],
};
const AGAIN = "Esc to finish.";

/** The name of the tool for a kind of markup. */
export const toolOf = (kind: Kind) => `mark ${kind}`;

/** Taking a tool in hand that draws over the view. */
export function useMarks() {
  const { stage } = useOpen();
  const { place, there } = usePlacing();
  return useMemo(() => {
    const live = (points: readonly Vector3[]) => {
      const { style } = useMarking.getState();
      stage()?.layer(Markups).showLive(points, COLOURS[style.colour].colour, style.width_px);
    };
    const pairs = (way: readonly Vector2[]) => way.map(({ x, y }) => [x, y] as const);
    /** Ask for the words where they are to stand. */
    const want = (kind: Kind, way: readonly Vector2[], through: Vector3) => {
      const view = stage()?.main;
      const end = way.at(-1);
      if (!view || !end) return;
      useMarking.setState({
        wanting: { kind, drawn: pairs(way), through_m: there(through), at: view.toPixel(end) },
      });
    };
    const dragged = (kind: Dragged): Tool => {
      const [drawing, says] = DRAWINGS[kind];
      return {
        name: toolOf(kind),
        prompt: `${says} ${AGAIN}`,
        writes: kind === "callout",
        down: (view) =>
          view.kind === "stage"
            ? new DrawnByHand(view, drawing, live, (way, through) => {
                if (kind === "callout") want(kind, way, through);
                else void place(kind, pairs(way), there(through));
              })
            : null,
        cancel: () => live([]),
      };
    };
    const written = (): Tool => ({
      name: toolOf("text"),
      prompt: `Click where the text goes. ${AGAIN}`,
      writes: true,
      click: (_, at, view) => {
        if (view.kind === "stage") want("text", [at], surfaceAt(view, at));
      },
    });
    const chained = (): Tool => {
      let points: Vector3[] = [];
      const finish = () => {
        const begun = points.length > 0;
        const view = stage()?.main;
        const [first] = points;
        // The eye may have moved between the clicks: what counts is where they are seen now.
        if (view && first && points.length > 1)
          void place("polyline", pairs(points.map((p) => view.camera.project(p))), there(first));
        points = [];
        live([]);
        return begun;
      };
      return {
        name: toolOf("polyline"),
        prompt: `Click each point, Enter to end. ${AGAIN}`,
        bound: true,
        click: (_, at, view) => {
          if (view.kind !== "stage") return;
          points.push(surfaceAt(view, at));
          live(points);
        },
        hover: (aim) => {
          if (points.length && aim) live([...points, aim.point]);
        },
        finish,
        // What has two points by then is kept.
        cancel: finish,
      };
    };
    return {
      /** Take the tool of a kind in hand, or put it away. */
      take: (kind: ByHand) => {
        useSession.getState().open("markups");
        const { tool, take } = useTools.getState();
        if (tool?.name === toolOf(kind)) return useTools.getState().putAway();
        take(kind === "text" ? written() : kind === "polyline" ? chained() : dragged(kind));
      },
    };
  }, [stage, place, there]);
}
