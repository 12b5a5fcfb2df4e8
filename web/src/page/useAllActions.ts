import { useMemo } from "react";
import { useWindowActions } from "../actions/useWindowActions";
import { useBesideActions } from "../beside/useBesideActions";
import { useCameraActions } from "../camera/useCameraActions";
import { useCutActions } from "../cuts/useCutActions";
import { useAlternativeActions } from "../desk/useAlternativeActions";
import { useTurnActions } from "../keyplan/useTurnActions";
import { useMarkupActions } from "../markups/useMarkupActions";
import { useMeasureActions } from "../measures/useMeasureActions";
import type { Action } from "../open/action";
import { usePickActions } from "../register/usePickActions";
import { useSeenActions } from "../seen/useSeenActions";
import { useTogetherActions } from "../together/useTogetherActions";
import { useTrailActions } from "../trail/useTrailActions";
import { useHomeActions } from "../viewpoints/useHomeActions";
import { useWalkActions } from "../walk/useWalkActions";

/** Every action of an open project: each task brings its own. */
export function useAllActions(): readonly Action[] {
  const walk = useWalkActions();
  const camera = useCameraActions();
  const trail = useTrailActions();
  const home = useHomeActions();
  const turns = useTurnActions();
  const seen = useSeenActions();
  const picks = usePickActions();
  const alternatives = useAlternativeActions();
  const cuts = useCutActions();
  const measures = useMeasureActions();
  const markups = useMarkupActions();
  const beside = useBesideActions();
  const together = useTogetherActions();
  const window = useWindowActions();
  return useMemo(
    () => [
      ...walk,
      ...camera,
      ...trail,
      ...home,
      ...turns,
      ...seen,
      ...picks,
      ...alternatives,
      ...cuts,
      ...measures,
      ...markups,
      ...beside,
      ...together,
      ...window,
    ],
    [
      walk,
      camera,
      trail,
      home,
      turns,
      seen,
      picks,
      alternatives,
      cuts,
      measures,
      markups,
      beside,
      together,
      window,
    ],
  );
}
