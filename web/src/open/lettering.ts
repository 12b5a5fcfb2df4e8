import { useEffect, useState } from "react";
import { setLettering } from "../style/lettering";
import { useHabits } from "./habits";

/** How large letters may be; `auto` follows the window. */
export const LETTERINGS = ["auto", 0.9, 1, 1.15, 1.3, 1.5, 1.75, 2] as const;
export type Lettering = (typeof LETTERINGS)[number];

const USUAL = { width: 1920, height: 1080 };
const LARGEST = 2;

/** How large letters are in a window: as usual up to 1920 by 1080 pixels, and larger with a larger one, as on a meeting screen. */
export function letteringFor(width: number, height: number): number {
  const share = Math.min(width / USUAL.width, height / USUAL.height);
  return Math.max(1, Math.min(LARGEST, Math.floor(share * 4) / 4));
}

/** The next larger or smaller size than the one that is shown. */
export function nextLettering(now: number, by: 1 | -1): Lettering {
  const sizes = LETTERINGS.filter((each) => each !== "auto");
  const found = by > 0 ? sizes.find((each) => each > now) : sizes.findLast((each) => each < now);
  return found ?? (by > 0 ? LARGEST : (sizes[0] ?? 1));
}

/** How large letters are now. */
export const letteringNow = () => {
  const { lettering } = useHabits.getState();
  return lettering === "auto" ? letteringFor(window.innerWidth, window.innerHeight) : lettering;
};

/** How large letters are: what this person wants, else what the window needs. */
export function useLetteringShare(): number {
  const [share, setShare] = useState(letteringNow);
  const lettering = useHabits((s) => s.lettering);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is now comes from the habits
  useEffect(() => {
    const put = () => setShare(letteringNow());
    put();
    window.addEventListener("resize", put);
    return () => window.removeEventListener("resize", put);
  }, [lettering]);
  return share;
}

/** Keeps the page's letters so large. */
export function useLettering(): void {
  const share = useLetteringShare();
  useEffect(() => setLettering(share), [share]);
}
