import { api, taken } from "../api/client";
import { useSeen } from "../open/seen";
import { orAloud } from "../open/session";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { usePerson } from "../people/person";
import { groupName, selectorOf } from "../register/groups";
import { tint, tintedByScale } from "../seen/tints";
import { type Entry, figure } from "./properties";

/** Tints the building by a property or quantity: figures by a scale, all else by what each group has of it. */
export function useTintBy() {
  const { projectId } = useOpen();
  const units = useUnits();
  return (what: string, entry: Entry) =>
    orAloud(async () => {
      const path = { project_id: projectId };
      const name = `tinted by ${entry.name}`;
      if (entry.number) {
        const scale = await taken(
          api.GET("/api/projects/{project_id}/scale", { params: { path, query: { what } } }),
        );
        const says = (value: number) => figure({ ...entry, value, unit: scale.unit }, units);
        const { rules, change } = useSeen.getState();
        const by = usePerson.getState().name;
        change({ rules: tintedByScale(rules, scale, says, by, new Date().toISOString()) }, name);
        return;
      }
      const { groups } = await taken(
        api.POST("/api/projects/{project_id}/schedule", {
          params: { path },
          body: {
            steps: [what],
            sums: [],
            conditions: [{ what, how: "present", value: null, unit: "" }],
            shown_by: null,
          },
        }),
      );
      const tinted = groups.map(({ key, count }) => ({
        name: groupName(key, [what]),
        select: selectorOf(key, [what], [], ""),
        count,
      }));
      tint(tinted, { kind: "all" }, name);
    });
}
