import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { Vector3 } from "three";
import { answerOf, api } from "../api/client";
import { COLOURS } from "../open/markups/marking";
import { usePlacing } from "../open/markups/usePlacing";
import { useOpen } from "../open/useStage";
import { type Markup, useViewState } from "../open/visibility/viewState";
import type { MarkupSign } from "../stage/layers/markups";

/** A way of more points is moved as a whole. */
const MOST_HANDLES = 12;
/** Which of its points is where the words of a markup stand. */
const WORDS: Partial<Record<Markup["kind"], number>> = { text: 0, callout: 1 };

/** What of a markup its lines come from; its colour and words do not change them. */
function shapeOf({ id, kind, points_m, eye, aspect, text_share }: Markup): string {
  return JSON.stringify([id, kind, points_m, eye, aspect, text_share]);
}

/** The markups of the view as the core draws them; while one is drawn anew it stays as it was. */
export function useDrawn(): readonly MarkupSign[] {
  const { federation } = useOpen();
  const { here } = usePlacing();
  const markups = useViewState((s) => s.markups);
  const shapes = markups.map(shapeOf);
  const { data } = useQuery({
    queryKey: ["markups", shapes],
    enabled: markups.length > 0,
    gcTime: 60_000,
    // While one more is drawn the others stay.
    placeholderData: keepPreviousData,
    queryFn: async () => {
      const drawn = await answerOf(api.POST("/api/markups/drawn", { body: { markups: [...markups] } }));
      return { by: new Map(shapes.map((shape, k) => [shape, drawn[k]] as const)), drawn };
    },
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: another federation counts from another origin
  return useMemo(
    () =>
      markups.flatMap<MarkupSign>((markup) => {
        const drawn = data?.by.get(shapeOf(markup)) ?? data?.drawn.find(({ id }) => id === markup.id);
        if (!drawn) return [];
        return [
          {
            id: markup.id,
            strokes: drawn.strokes.map(({ points_m, closed }) => ({ points: points_m.map(here), closed })),
            handles: markup.points_m.length > MOST_HANDLES ? [] : markup.points_m.map(here),
            // Words are taken hold of themselves.
            textHandle: WORDS[markup.kind] ?? null,
            at: here(drawn.at_m),
            textAt: here(drawn.text_at_m),
            textM: drawn.text_m,
            normal: new Vector3().fromArray(drawn.normal),
            coneDeg: drawn.cone_deg,
            leastM: drawn.least_m,
            mostM: drawn.most_m,
            colour: COLOURS[markup.colour].colour,
            widthPx: markup.width_px,
            fill: markup.fill,
            text: markup.text,
          },
        ];
      }),
    [markups, data, here, federation],
  );
}
