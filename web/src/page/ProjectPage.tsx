import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { type ReactNode, useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from "react";
import { useParams } from "react-router";
import { ActionsContext } from "../actions/ActionsContext";
import { Keys } from "../actions/Keys";
import { type Federation, Refused } from "../api/client";
import { useFederation, useFollow, useMine, useModels } from "../api/queries";
import { StoreyBoard } from "../board/StoreyBoard";
import { useHabits } from "../open/habits";
import { useMay } from "../open/mine";
import { beginProject, endProject } from "../open/perProject";
import { useRoom } from "../open/room";
import { useSelection } from "../open/selection";
import { useSession } from "../open/session";
import { uploadsOf } from "../open/uploads";
import { EyeNews, OpenContext, useOpen } from "../open/useStage";
import { useTour } from "../open/views/tourState";
import { useViewState } from "../open/visibility/viewState";
import { DropZone } from "../parts/DropZone";
import { FeaturesContext, Slot } from "../parts/feature";
import type { Stage } from "../stage/stage";
import { ENLARGED, withLetters } from "../style/lettering";
import { FINGER, face, tone } from "../style/theme";
import { Beginning, useRest } from "./Beginning";
import { Desk, fetchDesks } from "./Desk";
import { DoesNotOpen } from "./DoesNotOpen";
import { Footer } from "./Footer";
import { FEATURES } from "./features";
import { StageTop } from "./StageMarks";
import { StageView } from "./StageView";
import { TopBar } from "./TopBar";
import { Trouble } from "./Trouble";
import "./checks";
import { useAllActions } from "./useAllActions";
import { useRoomForStage } from "./useRoomForStage";

/** A project: board, stage and desk. */
export function ProjectPage() {
  const { projectId = "" } = useParams();
  const { data, error } = useFederation(projectId);
  const { error: out } = useMine(projectId);
  useFollow(projectId);
  if (out instanceof Refused) {
    return (
      <DoesNotOpen why={data ? "You are not in this project any more. Ask who owns it." : out.message} />
    );
  }
  if (error && !data) return <DoesNotOpen why={error.message} />;
  if (!data) return <Plain>Opening…</Plain>;
  return <Opened key={projectId} federation={data} projectId={projectId} />;
}

function WithActions({ children }: { children: ReactNode }) {
  return (
    <FeaturesContext value={FEATURES}>
      <ActionsContext value={useAllActions()}>{children}</ActionsContext>
    </FeaturesContext>
  );
}

/** Brings back what was open and half typed before a reload; first, so that what the address asks for comes after it. */
function AsItWasLeft({ projectId }: { projectId: string }) {
  useEffect(() => beginProject(projectId), [projectId]);
  return null;
}

function Plain({ children }: { children: ReactNode }) {
  return <Box sx={{ p: 4, fontSize: 16, bgcolor: tone.film, height: "100%" }}>{children}</Box>;
}

/** Takes files that are dropped anywhere, where one may add models. */
function Drops({ children }: { children: ReactNode }) {
  const { projectId } = useOpen();
  const may = useMay();
  const room = useRoom(projectId).data;
  const add = (files: File[]) => uploadsOf(projectId).add(files, room);
  return <DropZone onFiles={may("change the models") ? add : null}>{children}</DropZone>;
}

function Opened({ federation, projectId }: { federation: Federation; projectId: string }) {
  const stage = useRef<Stage | null>(null);
  const [ready, setReady] = useState(false);
  const eye = useRef(new EyeNews());
  const drawn = useRef({ drawing: new EyeNews(), second: new EyeNews() });
  const onReady = useCallback((made: Stage | null) => {
    stage.current = made;
    setReady(made !== null);
  }, []);
  const open = useMemo(
    () => ({ federation, stage: () => stage.current, eye: eye.current, drawn: drawn.current, projectId }),
    [federation, projectId],
  );
  const onRest = useRest(federation, projectId, open.stage);
  useLayoutEffect(() => {
    useSelection.getState().follow(federation);
    useViewState.getState().follow(federation);
  }, [federation]);
  // Last, so that nothing hears of it any more.
  useEffect(() => endProject, []);
  const folded = useSession((s) => s.folded);
  const alone = useTour((s) => s.full);
  const bare = useSession((s) => s.bare) || alone;
  useRoomForStage();
  return (
    <OpenContext value={open}>
      <AsItWasLeft projectId={projectId} />
      <WithActions>
        <Drops>
          <Box
            sx={{
              display: "grid",
              gridTemplateColumns: "auto minmax(0, 1fr) auto",
              gridTemplateRows: rows(alone ? 0 : 40, bare ? 0 : 40),
              [FINGER]: { gridTemplateRows: rows(alone ? 0 : 44, bare ? 0 : 52) },
              gridTemplateAreas: '"top top top" "board stage desk" "below below desk" "foot foot foot"',
              height: "100%",
            }}
          >
            {/* The stage comes first, so that the keyboard is there at once. */}
            <Box sx={{ gridArea: "stage", position: "relative", display: "grid", minWidth: 0, minHeight: 0 }}>
              <StageView onReady={onReady} onRest={onRest} />
              <OverStage ready={ready} />
            </Box>
            <Box
              sx={{
                ...ENLARGED,
                gridArea: "top",
                display: alone ? "none" : "grid",
                gridTemplateColumns: "minmax(0, 1fr)",
              }}
            >
              <TopBar />
            </Box>
            <Box sx={{ ...ENLARGED, gridArea: "board", minHeight: 0, display: bare ? "none" : "grid" }}>
              {folded.board ? <BoardEdge /> : <BoardPane />}
            </Box>
            <Box sx={{ ...ENLARGED, gridArea: "desk", minHeight: 0, display: bare ? "none" : "block" }}>
              <Desk />
            </Box>
            <Box sx={{ display: bare ? "none" : "contents" }}>
              {ready && <Slot of="belowStage" told={{}} />}
            </Box>
            <Box
              sx={{
                ...ENLARGED,
                gridArea: "foot",
                display: bare ? "none" : "grid",
                gridTemplateColumns: "minmax(0, 1fr)",
                minHeight: 0,
              }}
            >
              <Footer />
            </Box>
          </Box>
        </Drops>
        {ready && <Beginning />}
        {ready && <Slot of="page" told={{}} />}
        <Keys />
      </WithActions>
    </OpenContext>
  );
}

/** The heights of the bar above, the stage, what is below it, and the strip at the foot. */
const rows = (topPx: number, footPx: number) =>
  `${withLetters(topPx)} minmax(0, 1fr) auto ${withLetters(footPx)}`;

/** What lies over the stage, and the drawing beside it. */
function OverStage({ ready }: { ready: boolean }) {
  const { federation } = useOpen();
  const something = federation.models.length > 0;
  const alone = useTour((s) => s.full);
  return (
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
        {!something && <Empty />}
        {ready && <Slot of="overStage" told={{}} />}
        {something && !alone && <Slot of="overBuilding" told={{}} />}
        <StageTop />
        <Trouble />
      </Box>
      {ready && <Slot of="besideStage" told={{}} />}
    </Box>
  );
}

function BoardPane() {
  const counts = useHabits((s) => s.boardCounts);
  return (
    <Box
      sx={{
        width: counts ? 246 : 160,
        [FINGER]: { width: 330 },
        minHeight: 0,
        bgcolor: tone.paper,
        borderRight: `1px solid ${tone.line}`,
      }}
    >
      <StoreyBoard />
    </Box>
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
  const may = useMay();
  const open = useSession((s) => s.open);
  const { projectId } = useOpen();
  const { data } = useModels(projectId);
  useEffect(fetchDesks, []);
  const busy = data?.filter((model) => model.status === "waiting" || model.status === "reading") ?? [];
  const reading =
    busy[0] && (busy.length > 1 ? `${busy.length} models are being read` : `${busy[0].name} is being read`);
  return (
    <Box
      sx={{ position: "absolute", inset: 0, display: "grid", placeItems: "center", pointerEvents: "none" }}
    >
      <Box sx={{ textAlign: "center", pointerEvents: "auto", maxWidth: 380 }}>
        <Box sx={{ fontSize: 20, fontWeight: 600, mb: 0.5 }}>
          {reading ? `${reading}…` : "Nothing to show yet"}
        </Box>
        <Box sx={{ color: tone.soft, mb: 1.5 }}>
          {reading
            ? "Each model appears once it has been read."
            : may("change the models")
              ? "Drop IFC files anywhere on this page. Each appears once it has been read."
              : "Those who coordinate the project add its models."}
        </Box>
        <Button variant="outlined" onClick={() => open("models")}>
          Show the models
        </Button>
      </Box>
    </Box>
  );
}
