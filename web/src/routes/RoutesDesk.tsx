import Box from "@mui/material/Box";
import { useEffect } from "react";
import { Vector3 } from "three";
import { DeskNote } from "../desk/Desk";
import { useOpen } from "../project/useStage";
import { Answer } from "./Answer";
import { Kept } from "./Kept";
import { RouteForm } from "./RouteForm";
import { useRouteState } from "./routeState";
import { tightPlaces } from "./useRoute";
import { WalkIt } from "./WalkIt";

/** Can somebody get there: from, to and who; the answer, drawn on the floor; and routes that were kept. */
export function RoutesDesk() {
  const answer = useRouteState((s) => s.answer);
  return (
    <Box>
      <RouteForm />
      {answer ? (
        <>
          <Answer answer={answer} />
          {answer.found && answer.points_m.length > 1 && <WalkIt answer={answer} />}
        </>
      ) : (
        <DeskNote>Choose where it begins and ends and who goes; the way is drawn on the floor.</DeskNote>
      )}
      <Kept />
    </Box>
  );
}

/** Draws the answer on the stage as long as there is one. */
export function RouteOnStage() {
  const { stage } = useOpen();
  const answer = useRouteState((s) => s.answer);
  useEffect(() => {
    const view = stage();
    if (!view) return;
    view.setRoute(
      answer && {
        points: answer.points_m.map((p) => new Vector3().fromArray(p)),
        tight: tightPlaces(answer),
      },
    );
    return () => view.setRoute(null);
  }, [stage, answer]);
  return null;
}
