export const NO_MATCH = 3;

/** How well a name answers what was typed: 0 begins with it, 1 has a word that does, 2 has it somewhere. */
export function rank(name: string, typed: string): number {
  if (name.startsWith(typed)) return 0;
  const at = name.indexOf(typed);
  if (at < 0) return NO_MATCH;
  return /[\s.,/-]/.test(name[at - 1] ?? "") ? 1 : 2;
}

/**
 * What has every word that was typed, in any order; first what begins with what was typed, then
 * what has a word that does. Of equals the given order stays.
 */
export function matches<T extends { name: string; kind: string }>(
  all: readonly T[],
  typed: string,
  most: number,
): T[] {
  const wanted = typed.trim().toLowerCase();
  const words = wanted.split(/\s+/);
  const ranked: T[][] = [[], [], [], []];
  for (const each of all) {
    const name = each.name.toLowerCase();
    const text = `${name} ${each.kind}`;
    if (words.every((word) => text.includes(word))) ranked[rank(name, wanted)]?.push(each);
  }
  // One heading a kind: the kind with the best match stands first.
  const found = ranked.flat().slice(0, most);
  const kinds = [...new Set(found.map((each) => each.kind))];
  return kinds.flatMap((kind) => found.filter((each) => each.kind === kind));
}
