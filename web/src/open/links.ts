import { api, taken, type View } from "../api/client";

const kept = new WeakMap<object, Promise<string>>();

/** Views that addresses name, kept by the server; the same rules are sent once. */
export function linksOf(projectId: string) {
  const path = { project_id: projectId };
  return {
    keep(view: View): Promise<string> {
      const rules = view.rules ?? [];
      const known = kept.get(rules);
      if (known) return known;
      const made = taken(api.POST("/api/projects/{project_id}/links", { params: { path }, body: view })).then(
        (link) => link.id,
      );
      kept.set(rules, made);
      made.catch(() => kept.delete(rules));
      return made;
    },
    open: (id: string): Promise<View> =>
      taken(
        api.GET("/api/projects/{project_id}/links/{link_id}", { params: { path: { ...path, link_id: id } } }),
      ),
  };
}
