import { storeyOf } from "../open/plan/plan";
import { useSelection } from "../open/selection";
import { useTools } from "../open/tools";
import { trails } from "../open/trail/trail";
import { useStageNews } from "../open/useStage";
import { useViewState } from "../open/visibility/viewState";
import { useWalkState } from "../open/walking/walkState";
import { Clips } from "../stage/clips";
import { offerToTests } from "../stage/testHooks";

/** What is open, as the page knows it, for checks against the core, and what benches cut the stage with. */
const open = {
  clips: { Clips },
  seen: () => useViewState.getState(),
  picked: () => useSelection.getState().picked,
  trail: (kind: keyof typeof trails = "stage") => trails[kind].getState(),
  tool: () => useTools.getState().tool?.name ?? null,
  /** The component that is named under the cursor. */
  hovered: () => useStageNews.getState().hovered,
  mode: () => useWalkState.getState().mode,
  /** The storey that the key plan shows by itself for an eye about the origin. */
  followed: (eye: [number, number, number]) => {
    const { federation } = useViewState.getState();
    const [x, y, z] = eye;
    return federation ? federation.levels[storeyOf(federation, { x, y, z }).level]?.name : undefined;
  },
};

offerToTests("open", open);
