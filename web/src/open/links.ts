import { answerOf, api, type View } from "../api/client";

/** What a link keeps besides the eye, as one text. */
function nameOf({ rules, cuts, whole, measures, markups, pictures }: View): string {
  return JSON.stringify([rules, cuts, whole, measures, markups, pictures]);
}

/** Views that are too long for an address, kept on the server under short names; the last one is not kept twice. */
export function linksOf(projectId: string) {
  const path = { project_id: projectId };
  let last: { name: string; made: Promise<string> } | null = null;
  return {
    keep(view: View): Promise<string> {
      const name = nameOf(view);
      if (last?.name === name) return last.made;
      const made = answerOf(
        api.POST("/api/projects/{project_id}/links", { params: { path }, body: view }),
      ).then((link) => link.id);
      last = { name, made };
      made.catch(() => {
        if (last?.made === made) last = null;
      });
      return made;
    },
    open: (id: string): Promise<View> =>
      answerOf(
        api.GET("/api/projects/{project_id}/links/{link_id}", { params: { path: { ...path, link_id: id } } }),
      ),
  };
}
