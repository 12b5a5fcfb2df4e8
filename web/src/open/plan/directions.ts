import type { Shapes } from "../../api/client";

export type Direction = Shapes["Direction"];

/** The three heights from which the sides, edges and corners of a building are looked at. */
export type Kind = "level" | "above" | "below";

export function kindOf(direction: Direction): Kind {
  return direction.tilt_deg === 0 ? "level" : direction.tilt_deg > 0 ? "above" : "below";
}

/** Which of the three a tilt is nearest to; what is nearly plan counts as from above. */
export function nearestKind(tiltDeg: number): Kind {
  return tiltDeg > 20 ? "above" : tiltDeg < -20 ? "below" : "level";
}

function apart(a: number, b: number): number {
  return Math.abs(((a - b + 540) % 360) - 180);
}

/** The direction of a kind whose bearing, from that of the front, is nearest. */
export function directionAt(
  directions: readonly Direction[],
  bearingDeg: number,
  kind: Kind,
): Direction | null {
  const those = directions.filter((d) => Math.abs(d.tilt_deg) < 90 && kindOf(d) === kind);
  return those.reduce<Direction | null>(
    (best, d) => (!best || apart(d.bearing_deg, bearingDeg) < apart(best.bearing_deg, bearingDeg) ? d : best),
    null,
  );
}

/** Straight down or straight up. */
export function plumb(directions: readonly Direction[], down: boolean): Direction | null {
  return directions.find((d) => d.tilt_deg === (down ? 90 : -90)) ?? null;
}
