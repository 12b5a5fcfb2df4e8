import type { Shapes, Viewpoint } from "../../api/client";

export type Folder = Shapes["Folder"];

/** Viewpoints that stand together: those of a folder in its order, or those of none, newest first. */
export interface Shelf {
  folder: Folder | null;
  views: readonly Viewpoint[];
}

/** The viewpoints by their folders, those of none last; where something is typed those whose names or makers have it. */
export function shelves(folders: readonly Folder[], views: readonly Viewpoint[], typed: string): Shelf[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const known = new Map(folders.map((folder) => [folder.id, folder]));
  const of = (view: Viewpoint) => (view.folder && known.has(view.folder) ? view.folder : null);
  const meant = views.filter((view) => {
    const text = `${view.name}\n${view.author}\n${known.get(of(view) ?? "")?.name ?? ""}`.toLowerCase();
    return words.every((word) => text.includes(word));
  });
  const shelf = (folder: Folder | null): Shelf => {
    const inside = meant.filter((view) => of(view) === (folder?.id ?? null));
    return { folder, views: folder ? inside.sort((a, b) => a.place - b.place) : inside };
  };
  const all = [...folders.map(shelf), shelf(null)];
  // An empty folder is something to drop into, but nothing that was looked for.
  return all.filter(({ folder, views: inside }) => inside.length > 0 || (folder !== null && !words.length));
}
