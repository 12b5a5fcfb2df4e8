import { perProject } from "../perProject";
import type { Below } from "./shelf";

/** All of a viewpoint, its eye alone, or everything but its eye. */
export type Brings = "all" | "eye" | "rest";

interface ShelfShown {
  typed: string;
  /** Folders that are closed, by their ids, and what stands below them. */
  closed: readonly string[];
  /** Viewpoints that something is to be done with together, by their ids. */
  ticked: readonly string[];
  /** What going to a viewpoint brings back. */
  brings: Brings;
  /** The viewpoint or folder whose commands are open, by its id. */
  opened: string | null;
  put(part: Partial<Pick<ShelfShown, "typed" | "ticked" | "brings" | "opened">>): void;
  turn(folder: string): void;
  tick(view: string): void;
}

const turned = (list: readonly string[], one: string) =>
  list.includes(one) ? list.filter((each) => each !== one) : [...list, one];

/** How the viewpoints are listed, and which are ticked. */
export const useShelf = perProject<ShelfShown>((set) => ({
  typed: "",
  // What topics and meetings keep is found there.
  closed: ["topics", "meetings"] satisfies Below[],
  ticked: [],
  brings: "all",
  opened: null,
  put: (part) => set(part),
  turn: (folder) => set(({ closed }) => ({ closed: turned(closed, folder) })),
  tick: (view) => set(({ ticked }) => ({ ticked: turned(ticked, view) })),
}));
