import { useSession } from "../open/session";
import { pointTool } from "../open/tools";
import { useStageNews } from "../open/useStage";
import { A_CAUGHT } from "../parts/words";
import type { Stage } from "../stage/stage";
import { RegionDrag } from "../stage/tools/region";
import type { Tool } from "../stage/tools/tool";

/** Zooms to what a box is drawn around, again and again. */
export const regionTool: Tool = {
  name: "region",
  prompt: "Draw a box around what you want to see. Press Esc to finish.",
  down: (view) =>
    new RegionDrag(view, (box) => useStageNews.setState({ region: box && { ...box, where: view.kind } })),
};

/** Pins the point that the view turns about. */
export function pinTool(stage: () => Stage | null): Tool {
  return pointTool(
    {
      name: "pin",
      prompt: "Click a corner, an edge or a grid crossing to orbit around.",
      exact: true,
    },
    ({ point, kind }) => {
      stage()?.navigation.pin(point);
      useSession.getState().say(`The pivot is pinned to ${A_CAUGHT[kind]}; Shift+I unpins it.`);
      return "done";
    },
  );
}
