import { create } from "zustand";
import type { Shapes } from "../api/client";

export type RoutePlace = Shapes["RoutePlace"];
export type RouteAnswer = Shapes["RouteAnswer"];

interface RouteState {
  start: RoutePlace | null;
  end: RoutePlace | null;
  body: string;
  stepFree: boolean;
  widthLimitM: number;
  heightLimitM: number;
  answer: RouteAnswer | null;
  /** The answer before the building changed, to tell the difference. */
  before: RouteAnswer | null;
  set(change: Partial<Omit<RouteState, "set">>): void;
}

/** The route that is asked for and its answer, over the desk's other tasks. */
export const useRouteState = create<RouteState>((set) => ({
  start: null,
  end: null,
  body: "standing",
  stepFree: false,
  widthLimitM: 0.9,
  heightLimitM: 2,
  answer: null,
  before: null,
  set: (change) => set(change),
}));

export const noRoute = { start: null, end: null, answer: null, before: null };

/** Minutes and seconds. */
export function spokenTime(seconds: number): string {
  const whole = Math.round(seconds);
  return whole < 60 ? `${whole} s` : `${Math.floor(whole / 60)} min ${String(whole % 60).padStart(2, "0")} s`;
}

/** What changed against an answer of before, in a sentence; nothing if nothing did. */
export function difference(before: RouteAnswer, now: RouteAnswer): string {
  if (before.found && !now.found) return "There was a way before; now there is none.";
  if (!before.found && now.found) return "There was no way before.";
  if (!before.found || !now.found) return "";
  const metres = (now.length_m ?? 0) - (before.length_m ?? 0);
  const risers = (now.risers ?? 0) - (before.risers ?? 0);
  const seconds = (now.time_s ?? 0) - (before.time_s ?? 0);
  if (Math.abs(metres) < 0.005 && risers === 0 && Math.abs(seconds) < 0.05) return "";
  const signed = (value: number, digits: number) =>
    `${value >= 0 ? "+" : "−"}${Math.abs(value).toFixed(digits)}`;
  return `Against before: ${signed(metres, 2)} m, ${signed(risers, 0)} risers, ${signed(seconds, 1)} s.`;
}
