import { pickedNow, useSelection } from "../open/selection";
import { useSession } from "../open/session";
import { useStageNews } from "../open/useStage";
import { counted } from "../parts/words";
import { BoxPick, type Taking } from "../stage/tools/boxPick";
import type { Tool } from "../stage/tools/tool";

/** What is picked once those in a box are taken so. */
export function withBoxed(
  now: readonly number[],
  boxed: readonly number[],
  taking: Taking,
): readonly number[] {
  if (taking === "alone") return boxed;
  const those = new Set(boxed);
  const rest = now.filter((component) => !those.has(component));
  return taking === "added" ? [...rest, ...boxed] : rest;
}

/** Picks what a box is drawn around, again and again. */
export const boxTool: Tool = {
  name: "box",
  prompt:
    "Draw a box. Left to right selects what is fully inside, right to left what it touches. Shift adds, Alt removes.",
  down: (view) =>
    new BoxPick(
      view,
      (box) => useStageNews.setState({ region: box && { ...box, where: view.kind } }),
      (components, taking) => {
        const picked = withBoxed(pickedNow(), components, taking);
        useSelection.getState().pick(picked);
        useSession.getState().say(`${counted(picked.length, "component")} selected.`);
      },
    ),
};
