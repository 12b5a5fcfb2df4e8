import type { Shapes } from "../../api/client";
import { perProject } from "../perProject";

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

export const useWalkState = perProject<WalkState>(() => ({
  mode: "orbit",
  body: USUAL_BODY,
  speedMs: 1.4,
  paces: {},
  behind: false,
  flyStops: false,
  stop: null,
}));
