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
