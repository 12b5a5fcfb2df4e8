import { useMemo } from "react";
import { answerOf, api, bytesOf, type ComponentRef, type Shapes } from "../api/client";
import type { Action } from "../open/action";
import { pickedNow, useSelection } from "../open/selection";
import { numbersIn } from "../open/selections/groups";
import { useSession, withErrorNotice } from "../open/session";
import { useTools } from "../open/tools";
import { useOpen } from "../open/useStage";
import { HIDDEN } from "../open/visibility/expected";
import { useViewState } from "../open/visibility/viewState";
import { counted } from "../parts/words";
import { boxTool } from "./boxTool";

type Known = Shapes["Component"];

/** What components can have in common, and what one has of it. */
const SAME = {
  type: (c: Known) => [c.type_name],
  class: (c: Known) => [c.ifc_class],
  system: (c: Known) => c.systems,
  material: (c: Known) => [c.material],
  level: (c: Known) => [c.level ?? ""],
  room: (c: Known) => [c.room ?? ""],
} as const satisfies Record<string, (c: Known) => readonly string[]>;

/** So many of the selection are asked for what they have. */
const MOST_ASKED = 30;

/** Picking all that is visible, the opposite, and what is alike. */
export function usePickActions(): readonly Action[] {
  const { projectId, federation } = useOpen();
  return useMemo<readonly Action[]>(() => {
    const { say } = useSession.getState();
    const pick = (numbers: readonly number[]) => {
      useSelection.getState().pick(numbers);
      say(`${counted(numbers.length, "component")} selected.`);
    };
    const visible = (state: number) => state !== HIDDEN;
    const known = ({ model, global_id }: ComponentRef) =>
      answerOf(
        api.GET("/api/models/{model_id}/components/{global_id}", {
          params: { path: { model_id: model, global_id } },
        }),
      );
    const met = async (what: string, value: string) => {
      const answer = await answerOf(
        api.POST("/api/projects/{project_id}/where", {
          params: { path: { project_id: projectId } },
          body: { conditions: [{ what, how: "equal", value, unit: "" }] },
        }),
      );
      if (answer.version !== federation.version)
        throw new Error("The building has just changed. Select again.");
      return new Uint8Array(bytesOf(answer.met));
    };
    const same = (what: keyof typeof SAME) =>
      withErrorNotice(async () => {
        const { refs } = useSelection.getState();
        if (!refs.length) return say("Nothing is selected. Click a component first.");
        const those = await Promise.all(refs.slice(0, MOST_ASKED).map(known));
        const values = [...new Set(those.flatMap(SAME[what]))].filter(Boolean);
        if (!values.length) return say(`The selection has no ${what}.`);
        const masks = await Promise.all(values.map((value) => met(what, value)));
        const { states } = useViewState.getState();
        pick(numbersIn(states, (state, k) => visible(state) && masks.some((mask) => mask[k])));
      });
    return [
      {
        group: "Select",
        name: "Select in a box",
        key: "shift+r",
        run: () => useTools.getState().take(boxTool),
      },
      {
        group: "Select",
        name: "Select all visible",
        run: () => pick(numbersIn(useViewState.getState().states, visible)),
      },
      {
        group: "Select",
        name: "Invert the selection of visible components",
        run: () => {
          const now = new Set(pickedNow());
          pick(numbersIn(useViewState.getState().states, (state, k) => visible(state) && !now.has(k)));
        },
      },
      { group: "Select", name: "Clear selection", run: () => useSelection.getState().pick([]) },
      ...(Object.keys(SAME) as (keyof typeof SAME)[]).map<Action>((what) => ({
        group: "Select",
        name: `Select all visible of the same ${what}`,
        ...(what === "type" || what === "system" ? { menu: `Select all of the same ${what}` } : {}),
        run: () => void same(what),
      })),
    ];
  }, [projectId, federation]);
}
