import type { Shapes } from "../api/client";

/** Long work that a job does: a check for interference, or a sheet. */
export type Errand = Shapes["Errand"];
export type CheckErrand = Errand & { wish: Shapes["Check"] };
export type SheetErrand = Errand & { wish: Shapes["SheetWish"] };

export function isCheck(errand: Errand): errand is CheckErrand {
  return errand.wish.kind === "check";
}

export function isSheet(errand: Errand): errand is SheetErrand {
  return errand.wish.kind === "sheet";
}

export function isBusy({ status }: Errand): boolean {
  return status === "waiting" || status === "running";
}
