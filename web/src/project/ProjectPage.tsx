import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { type ReactNode, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Link, useParams } from "react-router";
import { WithActions } from "../actions/ActionsContext";
import { Keys } from "../actions/Keys";
import { useTools } from "../actions/tools";
import type { Federation } from "../api/client";
import { useFederation, useFollow } from "../api/queries";
import { BesidePane } from "../beside/BesidePane";
import { DrawingOnStage } from "../beside/DrawingOnStage";
import { useBeside } from "../beside/shown";
import { StoreyBoard } from "../board/StoreyBoard";
import { useAligning } from "../desk/alignState";
import { Desk } from "../desk/Desk";
import { KeyPlan } from "../keyplan/KeyPlan";
import { RouteOnStage } from "../routes/RoutesDesk";
import { noRoute, useRouteState } from "../routes/routeState";
import type { Stage } from "../stage/stage";
import { DropZone } from "../start/DropZone";
import { uploadsOf } from "../start/uploads";
import { face, tone } from "../theme";
import { WalkBar } from "../walk/WalkBar";
import { Beginning, useRest } from "./Beginning";
import { Footer } from "./Footer";
import { Notice } from "./Notice";
import { StageView } from "./StageView";
import { useSession } from "./session";
import { TopBar } from "./TopBar";
import { Trouble } from "./Trouble";
import { EyeNews, OpenContext } from "./useStage";

/** A project: board, stage and desk. */
export function ProjectPage() {
  const { projectId = "" } = useParams();
  const { data, error } = useFederation(projectId);
  useFollow(projectId);
  if (error && !data) {
    return (
      <Plain>
        {error.message} <Link to="/">Go to the start page</Link>
      </Plain>
    );
  }
  if (!data) return <Plain>Opening ...</Plain>;
  return <Opened key={projectId} federation={data} projectId={projectId} />;
}

function Plain({ children }: { children: ReactNode }) {
  return <Box sx={{ p: 4, fontSize: 16, bgcolor: tone.film, height: "100%" }}>{children}</Box>;
}

function Opened({ federation, projectId }: { federation: Federation; projectId: string }) {
  const reset = useSession((s) => s.reset);
  const putAway = useTools((s) => s.putAway);
  const stage = useRef<Stage | null>(null);
  const [ready, setReady] = useState(false);
  const eye = useRef(new EyeNews());
  const drawn = useRef(new EyeNews());
  const onReady = useCallback((made: Stage | null) => {
    stage.current = made;
    setReady(made !== null);
  }, []);
  const open = useMemo(
    () => ({ federation, stage: () => stage.current, eye: eye.current, drawn: drawn.current, projectId }),
    [federation, projectId],
  );
  const onRest = useRest(federation, projectId, open.stage);
  // Last, so that nothing hears of it any more.
  useEffect(
    () => () => {
      reset();
      putAway();
      useBeside.getState().close();
      useRouteState.setState(noRoute);
      useAligning.getState().stop();
    },
    [reset, putAway],
  );
  const folded = useSession((s) => s.folded);
  return (
    <OpenContext value={open}>
      <WithActions>
        <DropZone onFiles={(files) => uploadsOf(projectId).add(files)}>
          <Box sx={{ display: "grid", gridTemplateRows: "44px minmax(0,1fr) 84px", height: "100%" }}>
            <TopBar />
            <Box sx={{ display: "grid", gridTemplateColumns: "auto minmax(0,1fr) auto", minHeight: 0 }}>
              {folded.board ? (
                <BoardEdge />
              ) : (
                <Box
                  sx={{
                    width: 246,
                    minHeight: 0,
                    bgcolor: tone.paper,
                    borderRight: `1px solid ${tone.line}`,
                  }}
                >
                  <StoreyBoard />
                </Box>
              )}
              <Box sx={{ position: "relative", display: "grid", minWidth: 0, minHeight: 0 }}>
                <StageView onReady={onReady} onRest={onRest} />
                <Box
                  sx={{
                    position: "absolute",
                    inset: 0,
                    display: "flex",
                    pointerEvents: "none",
                    "& > :first-of-type > *": { pointerEvents: "auto" },
                  }}
                >
                  <Box sx={{ position: "relative", flex: 1, minWidth: 0, overflow: "hidden" }}>
                    {ready && <DrawingOnStage />}
                    {federation.models.length === 0 && <Empty />}
                    {federation.models.length > 0 && <KeyPlan />}
                    {ready && <WalkBar />}
                    {ready && <RouteOnStage />}
                    <Notice />
                    <Trouble />
                  </Box>
                  {ready && <BesidePane />}
                </Box>
              </Box>
              <Desk />
            </Box>
            <Footer />
          </Box>
        </DropZone>
        {ready && <Beginning />}
        <Keys />
      </WithActions>
    </OpenContext>
  );
}

function BoardEdge() {
  const fold = useSession((s) => s.fold);
  return (
    <Box sx={{ width: 30, bgcolor: "#efebe2", borderRight: `1px solid ${tone.line}`, display: "flex" }}>
      <Box
        component="button"
        type="button"
        onClick={() => fold("board", false)}
        sx={{
          border: 0,
          bgcolor: "transparent",
          writingMode: "vertical-rl",
          py: 2,
          width: "100%",
          alignSelf: "start",
          cursor: "pointer",
          fontFamily: face.head,
          fontWeight: 600,
          fontSize: 13,
          color: tone.soft,
        }}
      >
        Storey board
      </Box>
    </Box>
  );
}

function Empty() {
  const open = useSession((s) => s.open);
  return (
    <Box
      sx={{ position: "absolute", inset: 0, display: "grid", placeItems: "center", pointerEvents: "none" }}
    >
      <Box sx={{ textAlign: "center", pointerEvents: "auto", maxWidth: 380 }}>
        <Box sx={{ fontSize: 20, fontWeight: 600, mb: 0.5 }}>Nothing to draw yet</Box>
        <Box sx={{ color: tone.soft, mb: 1.5 }}>
          Drop IFC files anywhere on this page; each appears as soon as it is read.
        </Box>
        <Button variant="outlined" onClick={() => open("models")}>
          Show the models
        </Button>
      </Box>
    </Box>
  );
}
