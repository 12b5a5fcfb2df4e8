import type { Federation } from "../api/client";
import { TOP_STOREY_M } from "../api/constants";

type Levels = Federation["levels"];

/** The level that a height belongs to, by where the core says that each begins; the lowest below them all. */
export function levelAt(levels: Levels, heightM: number): number {
  return Math.max(
    0,
    levels.findLastIndex((level) => level.begins_m <= heightM),
  );
}

/** The storey under a height, and how far above its floor the height is. */
export function overStorey(levels: Levels, z: number): { name: string; overM: number; floorM: number } {
  const level = levels[levelAt(levels, z)];
  const floorM = level?.elevation_m ?? 0;
  return { name: level?.name ?? "zero", overM: z - floorM, floorM };
}

/** Whether a height is above or below the storey whose plan is shown. */
export function offStorey(levels: Levels, shown: number, heightM: number): "above" | "below" | "no" {
  const lowest = levels[0];
  if (lowest && heightM < lowest.begins_m) return "below";
  const at = levelAt(levels, heightM);
  const top = levels.at(-1);
  // Over the highest floor one is as high above it as a storey is, and then above the building.
  if (top && at === levels.length - 1 && heightM >= top.elevation_m + TOP_STOREY_M) return "above";
  return at > shown ? "above" : at < shown ? "below" : "no";
}
