import { written } from "../api/locale";

const DAY = { day: "2-digit", month: "2-digit", year: "numeric" } as const;
const MOMENT = { ...DAY, hour: "2-digit", minute: "2-digit" } as const;

/** A day as the person's own locale and the fields for days write it: "04/12/2026". Of a date alone no time zone makes another day. */
export function spokenDay(iso: string): string {
  const at = new Date(iso.length === 10 ? `${iso}T12:00:00` : iso);
  return Number.isNaN(at.getTime()) ? iso : written(at, DAY);
}

/** A day with its time, as the person's own locale writes it: "04/12/2026, 14:05". */
export function spokenMoment(iso: string): string {
  const at = new Date(iso);
  return Number.isNaN(at.getTime()) ? iso : written(at, MOMENT);
}
