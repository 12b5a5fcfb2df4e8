import { perProject } from "../perProject";
import { useSession } from "../session";
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
  /** A view is to be kept: its name is asked for. */
  keeping: boolean;
  put(part: Partial<Pick<ShelfShown, "typed" | "ticked" | "brings" | "opened" | "keeping">>): void;
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
  keeping: false,
  put: (part) => set(part),
  turn: (folder) => set(({ closed }) => ({ closed: turned(closed, folder) })),
  tick: (view) => set(({ ticked }) => ({ ticked: turned(ticked, view) })),
}));

/** Begin to keep what is seen: its name is asked for. */
export function beginKeeping(): void {
  useShelf.getState().put({ keeping: true });
  useSession.getState().open("viewpoints");
}
