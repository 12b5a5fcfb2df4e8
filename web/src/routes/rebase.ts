import { useRouteState } from "./routeState";

const POINTS = new Set(["at_m", "nearest_m", "point_m", "points_m"]);

function shifted(points: unknown, by: readonly number[]): unknown {
  if (!Array.isArray(points)) return points;
  return typeof points[0] === "number"
    ? points.map((v: number, i) => v + (by[i] ?? 0))
    : points.map((point) => shifted(point, by));
}

/** The same with all its points so much further. */
export function moved<T>(document: T, by: readonly number[]): T {
  return JSON.parse(JSON.stringify(document), (key, value) => (POINTS.has(key) ? shifted(value, by) : value));
}

/** What is asked for and answered is counted from another origin. */
export function rebaseRoutes(by: readonly number[]): void {
  const { start, end, asked, answer, first, others } = useRouteState.getState();
  useRouteState.setState(moved({ start, end, asked, answer, first, others }, by));
}
