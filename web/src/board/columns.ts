import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import type { Federation } from "../api/client";
import { groupedBy, scheduleQuery } from "../api/queries";
import { useOpen } from "../open/useStage";
import { cellOf, type Selector } from "../open/visibility/selectors";
import { byDiscipline, type ColumnOf } from "../open/visibility/tallies";

/** A column of the board: what it is called, and what of a level, or of all of them, stands in it. */
export interface Column {
  code: string;
  name: string;
  colour: string;
  select: (level: number | null) => Selector;
}

/** What the columns of a board are, by their numbers, and in which of them a component stands. */
export interface Columns {
  of: ReadonlyMap<number, Column>;
  columnOf: ColumnOf;
}

function disciplinesOf(federation: Federation): Columns {
  const of = new Map<number, Column>();
  federation.disciplines.forEach(({ code, name, colour }, at) => {
    of.set(at, { code, name, colour, select: (level) => cellOf(federation, level, at) });
  });
  return { of, columnOf: byDiscipline };
}

/** The disciplines, or the systems of the one that is opened; those come from the server. */
export function useColumns(opened: number | null): Columns | null {
  const { federation, projectId } = useOpen();
  const code = opened === null ? "" : (federation.disciplines[opened]?.code ?? "");
  const within = { what: "discipline", how: "equal", value: code, unit: "" } as const;
  const { data } = useQuery({
    ...scheduleQuery(projectId, federation.version, groupedBy("system", [within])),
    enabled: opened !== null,
    placeholderData: keepPreviousData,
  });
  return useMemo(() => {
    if (opened === null) return disciplinesOf(federation);
    if (data?.version !== federation.version) return null;
    const colour = federation.disciplines[opened]?.colour ?? "";
    const of = new Map<number, Column>();
    data.groups.forEach(({ key }, at) => {
      const system = key[0] ?? "";
      const name = system || "no system";
      of.set(at, {
        code: name,
        name,
        colour,
        select: (level) => cellOf(federation, level, opened, system),
      });
    });
    return { of, columnOf: (component) => data.groupOf[component] ?? -1 };
  }, [opened, federation, data]);
}
