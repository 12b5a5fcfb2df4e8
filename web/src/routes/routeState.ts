import type { Shapes } from "../api/client";
import { perProject } from "../open/perProject";
import { unitsNow } from "../open/units";

export type RoutePlace = Shapes["RoutePlace"];
export type RouteAnswer = Shapes["RouteAnswer"];

export type RouteWish = Shapes["RouteRequest"];
export type OtherWay = Shapes["OtherWay"];

interface RouteState {
  start: RoutePlace | null;
  end: RoutePlace | null;
  /** Whose way it is; that of the walker until another one is chosen here. */
  body: string | null;
  stepFree: boolean;
  widthLimitM: number;
  heightLimitM: number;
  /** When a search began, in milliseconds; null while none is on. */
  searching: number | null;
  /** What the answer answers. */
  asked: RouteWish | null;
  answer: RouteAnswer | null;
  /** The answer that somebody asked for, before the building changed. */
  first: RouteAnswer | null;
  /** The next best ways, once they were asked for; and which of them is shown in place of the quickest. */
  others: readonly OtherWay[] | null;
  chosen: number | null;
  /** The line was put away until a way is found again. */
  away: boolean;
  /** What is outlined on the stage, because it stands in the way. */
  outlined: readonly Shapes["NamedComponent"][];
  set(change: Partial<Omit<RouteState, "set">>): void;
}

export const noAnswer = {
  searching: null,
  asked: null,
  answer: null,
  first: null,
  others: null,
  chosen: null,
  away: false,
  outlined: [],
} as const;

/** The route that is asked for and its answer, over the desk's other tasks. */
export const useRouteState = perProject<RouteState>((set) => ({
  start: null,
  end: null,
  body: null,
  stepFree: false,
  widthLimitM: 0.9,
  heightLimitM: 2,
  ...noAnswer,
  set: (change) => set(change),
}));

/** What is asked for now, once it is known from where to where; by the walker's body where no other was chosen. */
export function wishNow(
  state: Pick<RouteState, "start" | "end" | "body" | "stepFree" | "widthLimitM" | "heightLimitM">,
  walker: string,
): RouteWish | null {
  const { start, end, body, stepFree, widthLimitM, heightLimitM } = state;
  if (!start || !end) return null;
  return {
    start,
    end,
    body: body ?? walker,
    step_free: stepFree,
    width_limit_m: widthLimitM,
    height_limit_m: heightLimitM,
  };
}

const PARTS = {
  start: "start",
  end: "end",
  body: "body",
  step_free: "stairs",
  width_limit_m: "width limit",
  height_limit_m: "height limit",
} as const;

/** What was changed since a way was asked for, in a sentence; nothing if nothing was. */
export function changedSince(asked: RouteWish | null, wish: RouteWish | null): string {
  if (!asked || !wish) return "";
  const place = (key: "start" | "end") =>
    JSON.stringify([wish[key].room, wish[key].point_m]) !==
    JSON.stringify([asked[key].room, asked[key].point_m]);
  const keys = Object.keys(PARTS) as (keyof typeof PARTS)[];
  const other = keys.filter((key) =>
    key === "start" || key === "end" ? place(key) : wish[key] !== asked[key],
  );
  if (!other.length) return "";
  return `Changed since this was found: ${other.map((key) => PARTS[key]).join(", ")}.`;
}

/** The way that is to be seen: the quickest, or another one that was chosen. */
export function wayShown(state: Pick<RouteState, "answer" | "others" | "chosen">): RouteAnswer | null {
  return state.chosen === null ? state.answer : (state.others?.[state.chosen]?.answer ?? state.answer);
}

/** Whether what is shown answers what is asked for now: no other one is searched, and nothing was changed since. */
export function answersNow(state: RouteState, walker: string): boolean {
  return state.searching === null && !changedSince(state.asked, wishNow(state, walker));
}

/** Minutes and seconds. */
export function spokenTime(seconds: number): string {
  const whole = Math.round(seconds);
  return whole < 60 ? `${whole} s` : `${Math.floor(whole / 60)} min ${String(whole % 60).padStart(2, "0")} s`;
}

/** What changed against an answer of before, in a sentence; nothing if nothing did. */
export function difference(before: RouteAnswer, now: RouteAnswer): string {
  if (before.found && !now.found) return "There was a route before. Now there is none.";
  if (!before.found && now.found) return "There was no route before.";
  if (!before.found || !now.found) return "";
  const metres = (now.length_m ?? 0) - (before.length_m ?? 0);
  const risers = (now.risers ?? 0) - (before.risers ?? 0);
  const seconds = (now.time_s ?? 0) - (before.time_s ?? 0);
  if (Math.abs(metres) < 0.005 && risers === 0 && Math.abs(seconds) < 0.05) return "";
  const signed = (value: number, digits: number) =>
    `${value >= 0 ? "+" : "−"}${Math.abs(value).toFixed(digits)}`;
  const length = `${metres >= 0 ? "+" : "−"}${unitsNow().length(Math.abs(metres), 2)}`;
  return `Against before: ${length}, ${signed(risers, 0)} risers, ${signed(seconds, 1)} s.`;
}

/** What a way keeps away from, such as "Door D-12, 0.82 m wide". */
export function spokenAvoided({ what, size_m, components }: Shapes["AvoidedPlace"]): string {
  const plain = what === "flight" ? "a flight of stairs" : "a tight place";
  const who = components.map((c) => c.label).join(" and ") || plain;
  return size_m === null
    ? who
    : `${who}, ${unitsNow().length(size_m, 2)} ${what === "width" ? "wide" : "high"}`;
}

/** The length that somebody typed; null where it is none, or not between nothing and the most there may be. */
export function typedMetres(text: string, mostM: number, units = unitsNow()): number | null {
  const value = units.parse(text);
  return value !== null && value >= 0 && value <= mostM ? value : null;
}
