import { useMemo } from "react";
import type { Action } from "../open/action";
import { useSession } from "../open/session";
import { useMeasureTools } from "./useMeasureTools";

/** Taking measures, by name. */
export function useMeasureActions(): readonly Action[] {
  const takes = useMeasureTools();
  return useMemo<readonly Action[]>(
    () => [
      { group: "Measure", name: "Measures", key: "g", run: () => useSession.getState().open("measures") },
      {
        group: "Measure",
        name: "Findings: look for interference",
        run: () => useSession.getState().open("findings"),
      },
      {
        group: "Measure",
        name: "Measure a distance",
        key: "shift+g",
        menu: "Measure from here",
        run: takes.points,
      },
      { group: "Measure", name: "Measure a chain of points", run: takes.chain },
      { group: "Measure", name: "Measure between two components", run: takes.between },
      { group: "Measure", name: "Measure two faces or edges", run: takes.sides },
      { group: "Measure", name: "Measure clear height and width", run: takes.clear },
      { group: "Measure", name: "Measure the area of a face", run: takes.face },
      { group: "Measure", name: "Measure the volume of the selection", run: takes.volume },
    ],
    [takes],
  );
}
