import type { Shapes, Viewpoint } from "../../api/client";

export type Folder = Shapes["Folder"];

/** What stands below the folders: views of no folder, newest first, those of topics and of meetings each on their own. */
export type Below = "none" | "topics" | "meetings";

/** Viewpoints that stand together: those of a folder in its order, or some of those of none. */
export interface Shelf {
  /** The folder's id, or what stands below the folders. */
  key: string;
  folder: Folder | null;
  /** In how many folders it stands. */
  depth: number;
  views: readonly Viewpoint[];
  /** Its own and those of the folders that stand in it, in their order. */
  inside: readonly Viewpoint[];
}

export const BELOW: Readonly<Record<Below, string>> = {
  none: "In no folder",
  topics: "Of topics",
  meetings: "Of meetings",
};

/** The folder that a folder stands in; none where that was deleted. */
function around(folder: Folder, known: ReadonlyMap<string, Folder>): Folder | undefined {
  return folder.within ? known.get(folder.within) : undefined;
}

/** A folder's name after those of the folders that it stands in. */
function pathOf(folder: Folder | undefined, known: ReadonlyMap<string, Folder>): string {
  return folder ? `${pathOf(around(folder, known), known)} ${folder.name}` : "";
}

/** Whether a folder is another one or stands in it. */
export function standsIn(folder: Folder, other: Folder, folders: readonly Folder[]): boolean {
  const known = new Map(folders.map((each) => [each.id, each]));
  for (let at: Folder | undefined = folder; at; at = around(at, known)) if (at.id === other.id) return true;
  return false;
}

/** Where a view stands that is in no folder. */
function belowOf({ of }: Viewpoint): Below {
  if (!of?.length) return "none";
  return of.some(({ kind }) => kind === "topic") ? "topics" : "meetings";
}

/**
 * The viewpoints by their folders, each followed by those that stand in it, then those of none; where something is typed
 * those whose names, makers, folders or topics have it.
 */
export function shelves(folders: readonly Folder[], views: readonly Viewpoint[], typed: string): Shelf[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const known = new Map(folders.map((folder) => [folder.id, folder]));
  const folderOf = (view: Viewpoint) => known.get(view.folder ?? "");
  const meant = views.filter((view) => {
    const of = (view.of ?? []).map(({ name }) => name).join(" ");
    const text = `${view.name}\n${view.author}\n${pathOf(folderOf(view), known)}\n${of}`.toLowerCase();
    return words.every((word) => text.includes(word));
  });
  const within = (outer: Folder | null, depth: number): Shelf[] =>
    folders
      .filter((each) => (around(each, known)?.id ?? null) === (outer?.id ?? null))
      .flatMap((folder) => {
        const own = meant
          .filter((view) => folderOf(view)?.id === folder.id)
          .sort((a, b) => a.place - b.place);
        const inner = within(folder, depth + 1);
        const inside = [...own, ...inner.filter((each) => each.depth === depth + 1).flatMap((s) => s.inside)];
        // An empty folder is something to drop into, but nothing that was looked for.
        if (words.length && !inside.length) return [];
        return [{ key: folder.id, folder, depth, views: own, inside }, ...inner];
      });
  const below = (["none", "topics", "meetings"] as const).flatMap((key) => {
    const own = meant.filter((view) => !folderOf(view) && belowOf(view) === key);
    return own.length ? [{ key, folder: null, depth: 0, views: own, inside: own }] : [];
  });
  return [...within(null, 0), ...below];
}

/** The shelves without those in folders that are closed. */
export function unfolded(all: readonly Shelf[], closed: readonly string[]): Shelf[] {
  let under = Number.POSITIVE_INFINITY;
  return all.filter(({ key, depth }) => {
    if (depth > under) return false;
    under = closed.includes(key) ? depth : Number.POSITIVE_INFINITY;
    return true;
  });
}

/** Where viewpoints stand: in which folder, and before which other one of it, if that is not among them. */
export function placesOf(views: readonly Viewpoint[], ids: readonly string[]) {
  const order = [...views].sort((a, b) => a.place - b.place);
  return order
    .filter(({ id }) => ids.includes(id))
    .map((view) => {
      const beside = order.filter(
        ({ id, folder }) => folder === view.folder && (id === view.id || !ids.includes(id)),
      );
      const next = view.folder ? beside[beside.indexOf(view) + 1] : undefined;
      return { id: view.id, folder: view.folder, before: next?.id ?? null };
    });
}
