import { perProject } from "../perProject";

/** All of a viewpoint, its eye alone, or everything but its eye. */
export type Brings = "all" | "eye" | "rest";

interface ShelfShown {
  typed: string;
  /** Folders that are closed, by their ids. */
  closed: readonly string[];
  /** Viewpoints that something is to be done with together, by their ids. */
  ticked: readonly string[];
  /** What going to a viewpoint brings back. */
  brings: Brings;
  put(part: Partial<Pick<ShelfShown, "typed" | "ticked" | "brings">>): void;
  turn(folder: string): void;
  tick(view: string): void;
}

const turned = (list: readonly string[], one: string) =>
  list.includes(one) ? list.filter((each) => each !== one) : [...list, one];

/** How the viewpoints are listed, and which are ticked. */
export const useShelf = perProject<ShelfShown>((set) => ({
  typed: "",
  closed: [],
  ticked: [],
  brings: "all",
  put: (part) => set(part),
  turn: (folder) => set(({ closed }) => ({ closed: turned(closed, folder) })),
  tick: (view) => set(({ ticked }) => ({ ticked: turned(ticked, view) })),
}));
