/** How a list was changed that was typed over another: what was added, and what was taken away; nobody else's entries. */
export function entries(
  over: readonly string[],
  typed: readonly string[],
): { add: string[]; drop: string[] } {
  const [was, is] = [over, typed].map((list) => list.map((each) => each.trim()).filter(Boolean)) as [
    string[],
    string[],
  ];
  return { add: is.filter((each) => !was.includes(each)), drop: was.filter((each) => !is.includes(each)) };
}

/** Entries added to a list. */
export const adding = (...add: string[]) => ({ add, drop: [] });

/** Entries taken away from a list. */
export const dropping = (...drop: string[]) => ({ add: [], drop });
