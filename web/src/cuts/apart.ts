/** A rectangle of the stage, in pixels. */
export interface Area {
  left: number;
  top: number;
  width: number;
  height: number;
}

const meet = (a: Area, b: Area) =>
  a.left < b.left + b.width &&
  b.left < a.left + a.width &&
  a.top < b.top + b.height &&
  b.top < a.top + a.height;

/** How far something moves down, or up where there is no room below, so that it covers none of the others; 0 where it covers none. */
export function shiftApart(own: Area, others: readonly Area[], heightPx: number): number {
  const clear = (way: 1 | -1) => {
    let top = own.top;
    // Each step leaves one of the others behind for good.
    for (const _ of others) {
      const hit = others.find((each) => meet({ ...own, top }, each));
      if (!hit) return top;
      top = way > 0 ? hit.top + hit.height : hit.top - own.height;
    }
    return top;
  };
  const below = clear(1);
  if (below + own.height <= heightPx) return below - own.top;
  const above = clear(-1);
  return above >= 0 ? above - own.top : below - own.top;
}

/** Where the tabs of all cuts stand, in their order: each keeps clear of those before it. */
export class Standing {
  private readonly areas = new Map<number, Area>();

  put(order: number, area: Area | null): void {
    if (area) this.areas.set(order, area);
    else this.areas.delete(order);
  }

  before(order: number): Area[] {
    return [...this.areas].filter(([each]) => each < order).map(([, area]) => area);
  }
}
