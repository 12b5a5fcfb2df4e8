import type { Viewpoint } from "../../api/client";
import { perProject } from "../perProject";

interface Played {
  /** What is played, in its order; empty for none. */
  views: readonly Viewpoint[];
  called: string;
  playing: boolean;
  /** So many times as quick as it is at first. */
  times: number;
  seconds: number;
  /** Whether one goes on foot where there is a way. */
  onFoot: boolean;
  /** Whether the stage has the whole screen, without panels. */
  full: boolean;
  put(part: Partial<Omit<Played, "put">>): void;
}

/** The tour that is played. */
export const useTour = perProject<Played>((set) => ({
  views: [],
  called: "",
  playing: false,
  times: 1,
  seconds: 0,
  onFoot: false,
  full: false,
  put: (part) => set(part),
}));

/** Play viewpoints as a tour, from the first on. */
export function playTour(called: string, views: readonly Viewpoint[]): void {
  useTour.getState().put({ called, views, seconds: 0, playing: true });
}
