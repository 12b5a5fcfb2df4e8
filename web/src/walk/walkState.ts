import { create } from "zustand";
import type { Shapes } from "../api/client";

/** How one moves: about points, on foot, or without feet. */
export type Mode = "orbit" | "walk" | "fly";

/** Who walks unless somebody else is chosen. */
export const USUAL_BODY = "standing";

interface WalkState {
  mode: Mode;
  body: string;
  /** How fast one goes now. */
  speedMs: number;
  /** How fast each body goes for whom the wheel changed it; the others at their own speed. */
  paces: Readonly<Record<string, number>>;
  /** See the body from behind. */
  behind: boolean;
  /** Stop at surfaces while flying. */
  flyStops: boolean;
  /** Why one came to a stop, until one moves on. */
  stop: Shapes["Stop"] | null;
}

export const useWalkState = create<WalkState>(() => ({
  mode: "orbit",
  body: USUAL_BODY,
  speedMs: 1.4,
  paces: {},
  behind: false,
  flyStops: false,
  stop: null,
}));

const metres = (value: number) => `${value.toFixed(2)} m`;

/** What stopped a body, in one line. */
export function spokenStop(stop: Shapes["Stop"], disciplines: readonly Shapes["Discipline"][] = []): string {
  const { component, found_m: found, needed_m: needed } = stop;
  const trade = disciplines.find((d) => d.code === component?.discipline)?.name.toLowerCase();
  const what = component
    ? `${component.label}, ${trade ?? component.model_name}`
    : "Something without a name";
  const sizes = found != null && needed != null;
  switch (stop.kind) {
    case "height":
    case "width":
      return sizes ? `${what}: ${metres(found)} clear, ${metres(needed)} needed` : what;
    case "step":
      return sizes ? `${what}: a step of ${metres(found)}, ${metres(needed)} at most` : `${what}: a step`;
    case "drop":
      return sizes ? `${what}: ${metres(found)} down, ${metres(needed)} at most` : `${what}: a drop`;
    case "slope":
      return sizes
        ? `${what}: a slope of 1:${(1 / found).toFixed(1)}, 1:${(1 / needed).toFixed(0)} at most`
        : `${what}: too steep`;
    case "edge":
      return `${what}: the floor ends here`;
    default:
      return `${what} stands in the way`;
  }
}
