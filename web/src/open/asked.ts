import type { Vector3 } from "three";
import { perProject } from "./perProject";

/** What a menu was asked for: where on the page it opens, and the point of the building that was meant, about the origin. */
export interface Asked {
  at: { x: number; y: number };
  point: Vector3;
}

/** The menu of the selection, while it is open. */
export const useAsked = perProject<{ asked: Asked | null }>(() => ({ asked: null }));

/** The point that the open menu is about; null where something is done by name or key instead. */
export const askedPoint = (): Vector3 | null => useAsked.getState().asked?.point ?? null;
