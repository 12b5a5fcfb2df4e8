import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useCallback, useRef } from "react";
import { OVER_STAGE } from "../open/looking/covered";
import { announce } from "../open/trail/cause";
import { usePlaying } from "../open/usePlaying";
import { useOpen } from "../open/useStage";
import { useTour } from "../open/views/tourState";
import { useShowViewpoint } from "../open/views/viewpoints";
import { Handle, Speeds } from "../parts/playing";
import { Switch } from "../parts/Switch";
import { Tick } from "../parts/Tick";
import { isSame } from "../stage/pose";
import { CUT_OFF, face, tone } from "../style/theme";
import { useFullScreen } from "./useFullScreen";
import { useTimeline } from "./useTimeline";

const SPEEDS = [0.5, 1, 2] as const;

/** Plays a tour: pause, speed, a handle to be anywhere in it, and the stage alone on the screen. */
export function TourBar() {
  const playing = useTour((s) => s.views.length > 0);
  return playing ? <Bar /> : null;
}

function Bar() {
  const { views, called, playing, times, seconds, onFoot, full, put } = useTour();
  const { line, finding } = useTimeline();
  const be = useBeAt(line);
  useFullScreen();
  const on = (passed: number) => {
    const next = Math.min(line.seconds, useTour.getState().seconds + passed * times);
    be(next);
    return next < line.seconds;
  };
  const mine = usePlaying(playing && !finding, on, () => put({ playing: false }));
  const stop = line.at(seconds)?.stop ?? 0;
  const play = () => {
    if (!playing && seconds >= line.seconds) be(0);
    put({ playing: !playing });
  };
  const leap = (to: number) => {
    be(line.reached(Math.min(Math.max(to, 0), views.length - 1)));
    mine();
  };
  return (
    <Box
      {...OVER_STAGE}
      data-testid="tour"
      sx={{
        position: "absolute",
        left: "50%",
        // Below what is said just now.
        top: 66,
        transform: "translateX(-50%)",
        width: "min(600px, calc(100% - 24px))",
        bgcolor: tone.paper,
        border: `1px solid ${tone.ink}`,
        px: 1.5,
        py: 0.75,
        pointerEvents: "auto",
        fontSize: 13,
      }}
    >
      <Box sx={{ display: "flex", gap: 1, alignItems: "baseline", minWidth: 0 }}>
        <Box component="b" sx={CUT_OFF}>
          {views[stop]?.name}
        </Box>
        <Box sx={{ color: tone.soft, whiteSpace: "nowrap" }}>
          {finding ? "Finding routes" : `${called}, ${stop + 1} of ${views.length}`}
        </Box>
        <Box sx={{ ml: "auto", fontFamily: face.figure, fontSize: 12, whiteSpace: "nowrap" }}>
          {Math.floor(seconds)} / {Math.round(line.seconds)} s
        </Box>
      </Box>
      <Handle
        label="Where in the tour"
        at={seconds}
        end={line.seconds}
        be={(at) => {
          put({ playing: false });
          be(at);
        }}
      />
      <Box sx={{ display: "flex", gap: 0.75, alignItems: "center", flexWrap: "wrap" }}>
        <Button variant="contained" onClick={play}>
          {playing ? "Pause" : "Play"}
        </Button>
        <Button variant="text" onClick={() => leap(stop - 1)}>
          Before
        </Button>
        <Button variant="text" onClick={() => leap(stop + 1)}>
          Next
        </Button>
        <Speeds speeds={SPEEDS} times={times} be={(speed) => put({ times: speed })} />
        <Tick label="on foot" on={onFoot} set={(on) => put({ onFoot: on })} />
        <Switch name="Stage alone" on={full} turn={() => put({ full: !full })} />
        <Button variant="text" onClick={() => put({ views: [], playing: false, full: false })}>
          End
        </Button>
      </Box>
    </Box>
  );
}

/** Puts the eye where one is after so many seconds of a tour; what is seen becomes that of its stop. */
function useBeAt(line: ReturnType<typeof useTimeline>["line"]) {
  const { stage } = useOpen();
  const show = useShowViewpoint();
  const shown = useRef<string | null>(null);
  return useCallback(
    (seconds: number) => {
      const moment = line.at(seconds);
      const { views, called, put } = useTour.getState();
      put({ seconds });
      if (!moment) return;
      // Each stop is a place of its own on the Trail.
      announce(`tour: ${called}`);
      const eye = stage();
      // While one looks at a stop the eye rests.
      if (eye && !isSame(eye.pose, moment.pose)) eye.take(moment.pose, "went");
      const view = views[moment.stop];
      if (!view || shown.current === view.id) return;
      shown.current = view.id;
      void show(view, true, "rest");
    },
    [line, stage, show],
  );
}
