import { useQueryClient } from "@tanstack/react-query";
import { answerOf, api } from "../api/client";
import { groupedBy, scheduleQuery } from "../api/queries";
import { groupName, selectorOf } from "../open/selections/groups";
import { type Entry, figure } from "../open/selections/properties";
import { withErrorNotice } from "../open/session";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { retint, tint, tintedByScale } from "../open/visibility/tints";

/** Tints the building by a property or quantity: figures by a scale, all else by what each group has of it. */
export function useTintBy() {
  const { projectId, federation } = useOpen();
  const units = useUnits();
  const client = useQueryClient();
  return (what: string, entry: Entry) =>
    withErrorNotice(async () => {
      const name = `tinted by ${entry.name}`;
      if (entry.number) {
        const scale = await answerOf(
          api.GET("/api/projects/{project_id}/scale", {
            params: { path: { project_id: projectId }, query: { what } },
          }),
        );
        const says = (value: number) => figure({ ...entry, value, unit: scale.unit }, units);
        retint(name, (rules, by, at) => tintedByScale(rules, scale, says, by, at));
        return;
      }
      const given = { what, how: "present", value: null, unit: "" } as const;
      const { groups } = await client.fetchQuery(
        scheduleQuery(projectId, federation.version, groupedBy(what, [given])),
      );
      const tinted = groups.map(({ key, says, count }) => ({
        name: groupName({ path: key, says: says[0] ?? "" }, [what]),
        select: selectorOf(key, [what], [], ""),
        count,
      }));
      tint(tinted, { kind: "all" }, name);
    });
}
