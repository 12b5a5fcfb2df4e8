import type { Viewpoint } from "../api/client";
import { perProject } from "../open/perProject";
import type { Framed } from "../stage/pictures";

/** The present view, to be kept under a name; `kept` is told when it was. */
export interface ToKeep {
  name: string;
  kept: () => void;
}

interface Framing {
  /** What is framed: a kept viewpoint, or the present view under a name that it is to be kept by. */
  of: { viewpoint: Viewpoint } | ToKeep | null;
  frame: Framed | null;
  widthPx: number;
  put(part: Partial<Omit<Framing, "put">>): void;
}

/** The picture of a view that is being widened or trimmed. */
export const useFraming = perProject<Framing>((set) => ({
  of: null,
  frame: null,
  widthPx: 720,
  put: (part) => set(part),
}));
