import Box from "@mui/material/Box";
import Tooltip from "@mui/material/Tooltip";
import { type Ref, useState } from "react";
import { Link } from "react-router";
import { Find } from "../actions/Find";
import { useBeside } from "../open/drawings/shown";
import { useDrawings } from "../open/drawings/useDrawings";
import { useCameraCommands } from "../open/looking/useCameraCommands";
import { useTogether } from "../open/together/togetherState";
import { useTools } from "../open/tools";
import { useOpen } from "../open/useStage";
import { beginKeeping } from "../open/views/shelfState";
import { useWalk } from "../open/walking/useWalk";
import { useWalkState } from "../open/walking/walkState";
import { Only } from "../parts/Only";
import { PanelOver } from "../parts/PanelOver";
import { counted } from "../parts/words";
import { Who } from "../start/Who";
import { face, tone } from "../style/theme";
import { People } from "../together/People";
import { useHome } from "../viewpoints/home";
import { DrawingPanel } from "../visibility/DrawingPanel";

/** The project, what can be done on the stage, and who sits here. */
export function TopBar() {
  const { federation } = useOpen();
  const { fitTo } = useCameraCommands();
  const home = useHome();
  const drawings = useDrawings();
  const beside = useBeside((s) => s.drawing !== null || s.second !== null);
  const walk = useWalk();
  const mode = useWalkState((s) => s.mode);
  return (
    <Box
      component="header"
      sx={{
        containerType: "inline-size",
        bgcolor: tone.ink,
        color: tone.paper,
        display: "flex",
        alignItems: "center",
        gap: 1,
        px: 1.75,
      }}
    >
      <Box
        component={Link}
        to="/"
        sx={{
          color: "inherit",
          textDecoration: "none",
          fontSize: 18,
          fontWeight: 600,
          mr: 1.5,
          whiteSpace: "nowrap",
          flexShrink: 0,
        }}
      >
        Stair Path
      </Box>
      <Box
        sx={{
          color: "#c5cdd3",
          fontFamily: face.head,
          fontSize: 14,
          whiteSpace: "nowrap",
          overflow: "hidden",
          textOverflow: "ellipsis",
          minWidth: 0,
          flex: "0 1 auto",
        }}
        title={federation.name}
      >
        {federation.name} · {counted(federation.models.length, "model")}
      </Box>
      <Box sx={{ flex: "1 1 0" }} />
      <BarButton title="Fit everything in the current direction" onClick={() => void fitTo({ kind: "all" })}>
        Fit all
      </BarButton>
      <BarButton
        title="Go to your home view, else the project's, else the front view"
        onClick={() => void home.go(false)}
      >
        Home
      </BarButton>
      <Drawing />
      <BarButton title="Walk over floors and stairs (M)" on={mode === "walk"} onClick={walk.toggleWalk}>
        Walk
      </BarButton>
      <BarButton title="Fly freely (F)" on={mode === "fly"} onClick={walk.toggleFly}>
        Fly
      </BarButton>
      <BarButton title="Show a plan or elevation beside the stage (B)" on={beside} onClick={drawings.toggle}>
        Plan beside
      </BarButton>
      <Find />
      <Only to="keep viewpoints">
        <BarButton title="Save this view as a viewpoint" onClick={beginKeeping}>
          Keep this view
        </BarButton>
      </Only>
      <Others />
      <Who />
    </Box>
  );
}

/** Who else is here, in a panel below its button. */
function Others() {
  const open = useTools((s) => s.panel === "people");
  const show = useTools((s) => s.showPanel);
  const count = useTogether((s) => s.people.length);
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <BarButton
        title="People here, presenting and following"
        on={open}
        onClick={() => show("people")}
        innerRef={setAnchor}
      >
        {`${count} here`}
      </BarButton>
      <PanelOver panel="people" anchor={anchor} side="below">
        <People />
      </PanelOver>
    </>
  );
}

/** How the building is drawn, in a panel below its button. */
function Drawing() {
  const open = useTools((s) => s.panel === "drawing");
  const show = useTools((s) => s.showPanel);
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <BarButton
        title="Style, colours and background"
        on={open}
        onClick={() => show("drawing")}
        innerRef={setAnchor}
      >
        Drawing
      </BarButton>
      <PanelOver panel="drawing" anchor={anchor} side="below">
        <DrawingPanel />
      </PanelOver>
    </>
  );
}

function BarButton(props: {
  title: string;
  on?: boolean;
  onClick: () => void;
  innerRef?: Ref<HTMLElement>;
  children: string;
}) {
  return (
    <Tooltip title={props.title}>
      <Box
        component="button"
        type="button"
        ref={props.innerRef}
        aria-pressed={props.on}
        onClick={props.onClick}
        sx={{
          border: 0,
          bgcolor: props.on ? tone.here : "transparent",
          color: tone.paper,
          px: 1.25,
          height: 28,
          cursor: "pointer",
          borderRadius: "2px",
          fontFamily: face.text,
          fontWeight: 400,
          fontSize: 14,
          whiteSpace: "nowrap",
          flexShrink: 0,
          "@container (max-width: 1100px)": { px: 0.9, fontSize: 13 },
          "@container (max-width: 1000px)": { px: 0.5 },
          "&:hover": { bgcolor: props.on ? tone.here : "#33424f" },
        }}
      >
        {props.children}
      </Box>
    </Tooltip>
  );
}
