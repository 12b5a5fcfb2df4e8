import type { Shapes } from "../api/client";

/** Long work that a job does: a check for interference, a sheet, or a file of topics. */
export type Errand = Shapes["Errand"];
export type CheckErrand = Errand & { wish: Shapes["Check"] };
export type SheetErrand = Errand & { wish: Shapes["SheetWish"] };
export type TopicsErrand = Errand & { wish: Shapes["TopicsIn"] };

export function isCheck(errand: Errand): errand is CheckErrand {
  return errand.wish.kind === "check";
}

export function isSheet(errand: Errand): errand is SheetErrand {
  return errand.wish.kind === "sheet";
}

export function isTopicsIn(errand: Errand): errand is TopicsErrand {
  return errand.wish.kind === "topics";
}

export function isBusy({ status }: Errand): boolean {
  return status === "waiting" || status === "running";
}
