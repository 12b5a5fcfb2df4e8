const ASIDE_PX = 16;
const BELOW_PX = 14;

interface Size {
  width: number;
  height: number;
}

/** Where a label at the cursor begins so that it stays in sight: right of and below it, else on the other side. */
export function besideCursor(
  at: { x: number; y: number },
  label: Size,
  view: Size,
): { left: number; top: number } {
  const [right, below] = [at.x + ASIDE_PX, at.y + BELOW_PX];
  const [left, above] = [at.x - ASIDE_PX - label.width, at.y - BELOW_PX - label.height];
  return {
    left: right + label.width <= view.width ? right : Math.max(0, left),
    top: below + label.height <= view.height ? below : Math.max(0, above),
  };
}
