import type { Shapes } from "../api/client";

const WINDS = [
  "north",
  "north-east",
  "east",
  "south-east",
  "south",
  "south-west",
  "west",
  "north-west",
] as const;

/** The wind that a bearing from the building's north goes to. */
export const windOf = (bearingDeg: number): string =>
  WINDS[Math.round((((bearingDeg % 360) + 360) % 360) / 45) % 8] ?? "north";

/** The two ways in which one can look square onto a grid line, by the building's own north. */
export function waysAcross(
  { ends }: Pick<Shapes["PlanAxis"], "ends">,
  northDeg: number,
): { words: string; bearingDeg: number }[] {
  const [[ax = 0, ay = 0] = [], [bx = 0, by = 0] = []] = ends;
  const along = (Math.atan2(bx - ax, by - ay) * 180) / Math.PI;
  return [along + 90, along - 90].map((bearing) => {
    return {
      words: `looking ${windOf(bearing - northDeg)}`,
      bearingDeg: ((bearing % 360) + 360) % 360,
    };
  });
}
