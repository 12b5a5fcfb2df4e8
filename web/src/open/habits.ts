import { create } from "zustand";
import { persist } from "zustand/middleware";
import { EYE_HEIGHT_M } from "../api/constants";
import type { InFull } from "../stage/finishing";
import type { Habits } from "../stage/gestures/host";
import { tone } from "../style/tone";
import type { Lettering } from "./letterSizes";
import type { Units } from "./unitNames";

/** What the stage stands in front of. */
export const BACKGROUNDS = { light: "#f3f1ec", grey: "#b9bdbf", dark: "#2b3640" } as const;

/** How large the key plan is: a step, half the stage, or so many pixels as it was dragged to. */
export type InstrumentSize = "small" | "medium" | "large" | "half" | number;

interface OwnHabits extends Habits {
  /** Turning to a side also fits what is picked, else what is visible. */
  fitOnTurn: boolean;
  instrument: InstrumentSize;
  faint: boolean;
  /** Bearings from true north instead of the building's own. */
  trueNorth: boolean;
  /** The bearing that looks at the front, from building north. */
  frontDeg: number;
  eyeHeightM: number;
  /** What is hidden when a project is opened again: as it was left, or nothing. */
  reopen: "keep" | "reset";
  /** How much of the width a drawing beside the stage takes. */
  besideShare: number;
  /** Whether the storey board is wide enough to say how many components stand in each cell. */
  boardCounts: boolean;
  /** Whether viewpoints are listed as rows or as large pictures. */
  viewpointsAs: "rows" | "pictures";
  /** How wide the desk was dragged; nothing for as wide as usual. */
  deskPx: number | null;
  /** How large letters are, or that they follow the window. */
  lettering: Lettering;
  /** How lengths are read and typed. */
  units: Units;
  pixelMm: number;
  background: keyof typeof BACKGROUNDS;
  /** In which colours what is picked and what is under the cursor are drawn. */
  pickColour: string;
  hoverColour: string;
  /** When the stage is drawn in full, with shade in corners and outlines. */
  inFull: InFull;
  set(part: Partial<Omit<OwnHabits, "set">>): void;
}

/** How this person likes to move and look; kept by the browser. */
export const useHabits = create<OwnHabits>()(
  persist(
    (set) => ({
      wheelButton: "pan",
      device: "mouse",
      instant: false,
      tumble: false,
      keepInside: true,
      fitOnTurn: true,
      instrument: "medium",
      faint: false,
      trueNorth: false,
      frontDeg: 0,
      eyeHeightM: EYE_HEIGHT_M,
      reopen: "keep",
      besideShare: 0.44,
      boardCounts: false,
      viewpointsAs: "rows",
      deskPx: null,
      lettering: "auto",
      units: "m",
      background: "light",
      inFull: "quick",
      pickColour: tone.pick,
      hoverColour: tone.here,
      // CSS defines a pixel as 1/96 inch; what a screen really has is declared by the person at it.
      pixelMm: 25.4 / 96,
      set: (part) => set(part),
    }),
    { name: "stairpath.habits" },
  ),
);
