import Box from "@mui/material/Box";
import NativeSelect from "@mui/material/NativeSelect";
import { useEffect, useRef, useState } from "react";
import type { Vector3 } from "three";
import { type InstrumentSize, useHabits } from "../open/habits";
import { OVER_STAGE } from "../open/looking/covered";
import { useShownLevel } from "../open/plan/storey";
import { useDirections, useKeyPlan, useTurns } from "../open/plan/useInstrument";
import { useOpen } from "../open/useStage";
import { IconButton } from "../parts/IconButton";
import { looking } from "../stage/pose";
import { ENLARGED, enlarged } from "../style/lettering";
import { tone } from "../style/theme";
import { PlanFrame } from "./PlanFrame";
import { SizeHandle } from "./SizeHandle";
import { TiltScale, tiltPlace } from "./TiltScale";
import { ZoomHandle } from "./ZoomHandle";

const SIZES = ["small", "medium", "large", "half"] as const;
const PX = { small: 140, medium: 176, large: 300, half: Number.POSITIVE_INFINITY } as const;
const AROUND_PX = 70;
const LEAST_PX = 120;
/** A smaller plan comes close to the eye instead of showing the whole storey. */
const CLOSE_PX = 260;

/** Where am I, and which way am I looking: the key plan in its bearing ring, and the tilt scale beside it. */
export function KeyPlan() {
  const { federation } = useOpen();
  const { instrument, faint, set } = useHabits();
  const { level, chosen, inside, choose } = useShownLevel();
  const plan = useKeyPlan(level);
  const directions = useDirections();
  const turns = useTurns(plan);
  const box = useRef<HTMLDivElement>(null);
  const size = useSize(box, instrument);
  if (!federation.levels.length) return null;
  const now = typeof instrument === "number" ? instrument : PX[instrument];
  const larger = SIZES.find((each) => PX[each] > now);
  const smaller = SIZES.findLast((each) => PX[each] < now);
  return (
    <Box
      ref={box}
      data-testid="instrument"
      {...OVER_STAGE}
      sx={{
        ...ENLARGED,
        position: "absolute",
        left: 10,
        bottom: 10,
        p: 0.5,
        bgcolor: tone.paper,
        border: `1px solid ${tone.line}`,
        opacity: faint ? 0.45 : 1,
        transition: "opacity .15s",
        "&:hover": { opacity: 1 },
      }}
    >
      <SizeHandle size={size} onSize={(px) => set({ instrument: Math.max(LEAST_PX, Math.round(px)) })} />
      <Box sx={{ display: "flex", alignItems: "center", gap: 0.25, mb: 0.25, pr: 2.25 }}>
        <NativeSelect
          value={chosen ?? ""}
          onChange={(event) => choose(event.target.value === "" ? null : Number(event.target.value))}
          inputProps={{ "aria-label": "Storey of the key plan" }}
          sx={{ fontSize: 12.5, flex: "0 1 160px", mr: "auto" }}
        >
          <option value="">
            {federation.levels[level]?.name}, {inside ? "follows the eye" : "from outside"}
          </option>
          {federation.levels.map((l, i) => (
            <option key={l.name} value={i}>
              {l.name}
            </option>
          ))}
        </NativeSelect>
        <IconButton icon="larger" off={!larger} onClick={() => larger && set({ instrument: larger })} />
        <IconButton icon="smaller" off={!smaller} onClick={() => smaller && set({ instrument: smaller })} />
        {now > PX.small && (
          <IconButton icon={faint ? "clearer" : "fainter"} onClick={() => set({ faint: !faint })} />
        )}
      </Box>
      <Box sx={{ display: "flex", alignItems: "flex-end", gap: 0.25 }}>
        <Box sx={{ width: size, position: "relative" }}>
          {plan && (
            <PlanFrame
              size={size}
              plan={plan}
              level={level}
              close={now < CLOSE_PX}
              sides={directions.filter((d) => d.tilt_deg === 0)}
            />
          )}
        </Box>
        {plan && (
          <Tilt height={Math.min(size, 260)} onMark={turns.toTilt} about={turns.about} drag={turns.drag} />
        )}
        <ZoomHandle />
      </Box>
    </Box>
  );
}

/** Unless it was made larger, the plan with what stands around it takes no more than about a tenth of the stage. */
const MOST_SHARE = 0.06;

/** The instrument's size in pixels; half means half the stage, as far as there is room. */
function useSize(box: React.RefObject<HTMLDivElement | null>, wanted: InstrumentSize): number {
  const [stage, setStage] = useState({ width: 900, height: 600, zoom: 1 });
  useEffect(() => {
    const parent = box.current?.parentElement;
    if (!parent) return;
    const watch = new ResizeObserver(() =>
      setStage({
        width: parent.clientWidth,
        height: parent.clientHeight,
        zoom: box.current ? enlarged(box.current) : 1,
      }),
    );
    watch.observe(parent);
    return () => watch.disconnect();
  }, [box]);
  const [width, height] = [stage.width / stage.zoom, stage.height / stage.zoom];
  const room = Math.max(LEAST_PX, Math.min(height - AROUND_PX, width - 2 * AROUND_PX));
  const most = wanted === "large" && stage.zoom <= 1 ? PX.large : Math.sqrt(MOST_SHARE * width * height);
  const size =
    typeof wanted === "number"
      ? wanted
      : wanted === "half"
        ? Math.max(PX.large, width / 2)
        : Math.min(PX[wanted], most);
  return Math.max(LEAST_PX, Math.min(room, size));
}

function Tilt(props: {
  height: number;
  onMark: (tiltDeg: number) => void;
  about: () => Vector3;
  drag: (bearingDeg: number, tiltDeg: number, pivot: Vector3) => void;
}) {
  const { eye } = useOpen();
  const mark = useRef<SVGGElement>(null);
  const held = useRef<{ pivot: Vector3; bearingDeg: number } | null>(null);
  useEffect(
    () =>
      eye.listen((pose) =>
        mark.current?.setAttribute(
          "transform",
          `translate(0 ${tiltPlace(looking(pose).tiltDeg, props.height)})`,
        ),
      ),
    [eye, props.height],
  );
  return (
    <TiltScale
      height={props.height}
      mark={mark}
      onMark={props.onMark}
      onDrag={(tiltDeg, first) => {
        if (first && eye.last)
          held.current = { pivot: props.about(), bearingDeg: looking(eye.last).bearingDeg };
        if (held.current) props.drag(held.current.bearingDeg, tiltDeg, held.current.pivot);
      }}
    />
  );
}
