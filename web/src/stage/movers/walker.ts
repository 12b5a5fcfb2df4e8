import type { Floor, Ground } from "./ground";
import { WAYS } from "./tile";

/** What moves is as in the core's `walking/walker.py`: same sixtieths of a second, same slides. */
export const TICK_S = 1 / 60;
const EASE_S = 0.12;
const LIFT_S = 0.15;
const SLIDES_DEG = [30, 60];
const ASIDE = 0.5;
const REST_MS = 0.01;
const LEVEL_M = 0.001;
const REACH = 0.5;
const LEAST_M = 1e-6;

/** Somebody on a floor of the map, along the map's axes; `blocked` is the way that was barred, or -1. */
export interface Walker {
  x: number;
  y: number;
  floor: Floor;
  feet: number;
  vx: number;
  vy: number;
  blocked: number;
}

function entered(ground: Ground, floor: Floor, x: number, y: number): { to: Floor | null; way: number } {
  const [dx, dy] = [ground.columnAt(x) - floor.column, ground.columnAt(y) - floor.row];
  if (dx === 0 && dy === 0) return { to: floor, way: -1 };
  const way = WAYS.findIndex(([i, j]) => i === dx && j === dy);
  return { to: way < 0 ? null : ground.step(floor, way), way };
}

/** Along what stands askew in the way; nowhere where both sides are alike, as before a wall met square on. */
function slides(ground: Ground, { floor, x, y }: Walker, dx: number, dy: number): [number, number][] {
  return SLIDES_DEG.flatMap((degrees) => {
    const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
    const free = [s, -s]
      .map((t): [number, number] => [(dx * c - dy * t) * c, (dx * t + dy * c) * c])
      .filter(([mx, my]) => entered(ground, floor, x + mx, y + my).to);
    return free.length === 1 ? free : [];
  });
}

function tries(ground: Ground, walker: Walker, barred: number, dx: number, dy: number): [number, number][] {
  const { floor } = walker;
  const out: [number, number][] = [[dx, 0], [0, dy], ...slides(ground, walker, dx, dy)];
  if (barred >= 0 && barred % 2 === 0) {
    for (const side of [1, -1]) {
      const aside = WAYS[(barred + 2 * side + 8) % 8];
      if (!aside || !ground.open(floor, (barred + side + 8) % 8)) continue;
      const length = Math.hypot(dx, dy) * ASIDE;
      out.push([aside[0] * length, aside[1] * length]);
    }
  }
  return out;
}

function moved(ground: Ground, walker: Walker, dx: number, dy: number): number {
  const straight = entered(ground, walker.floor, walker.x + dx, walker.y + dy);
  if (straight.to) {
    walker.x += dx;
    walker.y += dy;
    walker.floor = straight.to;
    return -1;
  }
  let best: { x: number; y: number; floor: Floor } | null = null;
  let bestM = 0;
  for (const [mx, my] of tries(ground, walker, straight.way, dx, dy)) {
    const { to } = entered(ground, walker.floor, walker.x + mx, walker.y + my);
    if (to && Math.hypot(mx, my) > bestM + LEAST_M) {
      best = { x: walker.x + mx, y: walker.y + my, floor: to };
      bestM = Math.hypot(mx, my);
    }
  }
  if (best) Object.assign(walker, best);
  return straight.way;
}

/** One sixtieth of a second towards a velocity along the map's axes. */
export function tick(ground: Ground, walker: Walker, vx: number, vy: number): void {
  const ease = 1 - Math.exp(-TICK_S / EASE_S);
  walker.vx += (vx - walker.vx) * ease;
  walker.vy += (vy - walker.vy) * ease;
  if (vx === 0 && vy === 0 && Math.hypot(walker.vx, walker.vy) < REST_MS) walker.vx = walker.vy = 0;
  const [dx, dy] = [walker.vx * TICK_S, walker.vy * TICK_S];
  const [fromX, fromY] = [walker.x, walker.y];
  const pieces = Math.max(1, Math.ceil(Math.max(Math.abs(dx), Math.abs(dy)) / (ground.place.cellM * REACH)));
  walker.blocked = -1;
  for (let piece = 0; piece < pieces; piece++) {
    const barred = moved(ground, walker, dx / pieces, dy / pieces);
    if (barred >= 0) walker.blocked = barred;
  }
  const height = ground.height(walker.floor);
  walker.feet += (height - walker.feet) * (1 - Math.exp(-TICK_S / LIFT_S));
  if (Math.abs(height - walker.feet) < LEVEL_M) walker.feet = height;
  if (walker.blocked >= 0) {
    walker.vx = (walker.x - fromX) / TICK_S;
    walker.vy = (walker.y - fromY) / TICK_S;
  }
}
