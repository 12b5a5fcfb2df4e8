const SET = /^(Pset|Qto)_/;
/** One name of several words, as standards write names: LoadBearing, NetSideArea, Width2. */
const RUN_TOGETHER = /^[A-Z][a-z]+(?:[A-Z0-9][a-z]*)*$/;

/** A name of the standard in plain words; one that is written in words, or for machines, stays as it is. */
export function plainName(name: string): string {
  const bare = name.replace(SET, "");
  if (!RUN_TOGETHER.test(bare)) return name;
  const words = bare.split(/(?<=[a-z])(?=[A-Z0-9])|(?<=[A-Z0-9])(?=[A-Z][a-z])/);
  return words.map((word, k) => (k && !/^[A-Z]{2}/.test(word) ? word.toLowerCase() : word)).join(" ");
}

/** A name within a sentence: "no fire rating". */
export function plainWithin(name: string): string {
  const plain = plainName(name);
  return plain === name ? name : `${plain.charAt(0).toLowerCase()}${plain.slice(1)}`;
}
