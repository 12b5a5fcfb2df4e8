import type { Shapes } from "../../api/client";

export interface Box {
  left: number;
  top: number;
  width: number;
  height: number;
}

export type Covered = Required<Shapes["Covered"]>;
type Side = keyof Covered;

/** What lies over the stage has this attribute; a fit keeps clear of it. */
export const OVER_STAGE = { "data-over-stage": "" } as const;
/** So much of the width or height may be given up; where more is covered, a fit goes behind it. */
const MOST = 0.7;
export const NOTHING: Covered = { left: 0, right: 0, top: 0, bottom: 0 };

/** The sides of the stage, and how much of each something takes that is kept clear of there. */
function sidesOf(stage: Box, box: Box): [Side, number][] {
  return [
    ["left", (box.left + box.width - stage.left) / stage.width],
    ["right", (stage.left + stage.width - box.left) / stage.width],
    ["top", (box.top + box.height - stage.top) / stage.height],
    ["bottom", (stage.top + stage.height - box.top) / stage.height],
  ];
}

/** With what is given up already, what else has to be so that nothing of the rest is covered. */
function withRest(stage: Box, over: readonly Box[], given: Covered): Covered {
  const covered = { ...given };
  for (const box of over) {
    const sides = sidesOf(stage, box);
    if (sides.some(([side, share]) => share <= Math.max(0, covered[side]))) continue;
    const [side, share] = sides.reduce((least, each) => (each[1] < least[1] ? each : least));
    if (share + covered[opposite(side)] <= MOST) covered[side] = share;
  }
  return covered;
}

/**
 * Ways to give up sides of the stage so that nothing of the rest is covered: one for each side that the largest
 * cover can be kept clear of. Which one shows most, the core finds.
 */
export function coveredBy(stage: Box, over: readonly Box[]): Covered[] {
  const [largest, ...rest] = over
    .filter((box) => box.width && box.height && sidesOf(stage, box).every(([, share]) => share > 0))
    .sort((a, b) => b.width * b.height - a.width * a.height);
  if (!largest) return [NOTHING];
  const ways = sidesOf(stage, largest).filter(([, share]) => share <= MOST);
  return ways.length
    ? ways.map(([side, share]) => withRest(stage, rest, { ...NOTHING, [side]: share }))
    : [withRest(stage, rest, NOTHING)];
}

function opposite(side: Side): Side {
  return ({ left: "right", right: "left", top: "bottom", bottom: "top" } as const)[side];
}

/** A mark that says something about the view, about where and how large it will be. */
const MARK: Box = { left: 12, top: 10, width: 260, height: 34 };

/** What lies over the stage now, on the page. */
export function boxesOver(): Box[] {
  return [...document.querySelectorAll<HTMLElement>("[data-over-stage]")].map((each) =>
    each.getBoundingClientRect(),
  );
}

/** What lies over the stage now, which is so wide for its height, or will once a mark says something about it. */
export function coveredNow(canvas: HTMLElement, aspect: number, marked = false): Covered[] {
  const { left, top, height } = canvas.getBoundingClientRect();
  const stage = { left, top, height, width: Math.max(1, height * aspect) };
  const boxes = boxesOver();
  if (marked) boxes.push({ ...MARK, left: left + MARK.left, top: top + MARK.top });
  return coveredBy(stage, boxes);
}

/** The sides to leave out of a picture of the stage, so that it shows most of what nothing lies over. */
export function besideFreest(canvas: HTMLElement, aspect: number): Covered {
  const free = ({ left, right, top, bottom }: Covered) => (1 - left - right) * (1 - top - bottom);
  return coveredNow(canvas, aspect).reduce((best, each) => (free(each) > free(best) ? each : best));
}
