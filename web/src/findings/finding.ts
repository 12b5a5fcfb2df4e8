import type { Shapes } from "../api/client";
import { perProject } from "../open/perProject";
import type { Spoken } from "../open/units";

export type Finding = Shapes["Finding"];
export type Findings = Shapes["Findings"];

/** Which check is open, and which of its findings is looked at. */
interface Looked {
  opened: string | null;
  at: number | null;
  /** Findings that topics are to be made of together, by their places. */
  ticked: readonly number[];
  /** How many of how many such topics are made already, while they are. */
  making: { done: number; of: number } | null;
}

export const useLooked = perProject<Looked>(() => ({ opened: null, at: null, ticked: [], making: null }));

/** How findings that are ticked become topics: one each, one for all, or one for each component that several share. */
export type Joining = "each" | "all" | "component";

/** The findings of each topic to be made, by their places. */
export function joined(findings: Findings, ticked: readonly number[], how: Joining): number[][] {
  if (how === "all") return ticked.length ? [[...ticked]] : [];
  if (how === "each") return ticked.map((at) => [at]);
  const left = new Set(ticked);
  const groups: number[][] = [];
  while (left.size) {
    // The component that most of what is left shares.
    const counts = new Map<number, number[]>();
    for (const at of left)
      for (const part of findings.findings[at]?.components ?? [])
        counts.set(part, [...(counts.get(part) ?? []), at]);
    const best = [...counts.values()].reduce<number[]>((a, b) => (b.length > a.length ? b : a), []);
    if (!best.length) break;
    groups.push(best);
    for (const at of best) left.delete(at);
  }
  return groups;
}

type OfPairs = Pick<Shapes["Topic"], "id" | "reference" | "pairs">;
const pairKey = (one: string, other: string) => (one < other ? `${one} ${other}` : `${other} ${one}`);

/** Topics by the pairs of components that they are about. */
export function topicsByPair<T extends OfPairs>(topics: readonly T[]): ReadonlyMap<string, T[]> {
  const found = new Map<string, T[]>();
  for (const topic of topics)
    for (const [one = "", other = ""] of topic.pairs) {
      const key = pairKey(one, other);
      found.set(key, [...(found.get(key) ?? []), topic]);
    }
  return found;
}

/** The topics that there are of a finding: those about a pair that it has, whatever check found it, and those that look at one. */
export function topicsOf<T>(findings: Findings, finding: Finding, byPair: ReadonlyMap<string, T[]>): T[] {
  const id = (k: number) => findings.components[k]?.global_id ?? "";
  return [...new Set(finding.pairs.flatMap(({ a, b }) => byPair.get(pairKey(id(a), id(b))) ?? []))];
}

/** What is kept of findings with the topic that is made of them. */
export function ofFindings(
  findings: Findings,
  some: readonly Finding[],
  check: string,
): Shapes["OfFinding"] | null {
  const [first] = some;
  if (!first) return null;
  const id = (k: number) => findings.components[k]?.global_id ?? "";
  const pairs = some.flatMap((finding) => finding.pairs.map(({ a, b }) => [id(a), id(b)]));
  const { kind, depth_m, distance_m } = first.worst;
  return { check, pairs: pairs.slice(0, 2000), measured: { kind, depth_m, distance_m } };
}

/** A depth or a distance as it is read. */
export function spokenMeasured({ kind, depth_m, distance_m }: Shapes["Measured"], units: Spoken): string {
  return kind === "overlap" ? `${units.length(depth_m)} deep` : `${units.length(distance_m)} apart`;
}

/** How bad a finding is, as it is read. */
export function spokenWorst({ worst }: Finding, units: Spoken): string {
  return worst.kind === "overlap"
    ? `${units.length(worst.depth_m)} deep`
    : `${units.length(worst.distance_m)} apart`;
}

/** The components of a finding. */
export function partsOf(findings: Findings, finding: Finding): Findings["components"] {
  return finding.components.flatMap((k) => findings.components[k] ?? []);
}

/** What a finding is called, such as "Duct D-1 and Beam B-1". */
export function calledBy(findings: Findings, finding: Finding): string {
  const [first, second] = [finding.worst.a, finding.worst.b].map((k) => findings.components[k]?.label ?? "");
  const rest = finding.components.length - 2;
  return `${first} and ${second}${rest > 0 ? ` and ${rest} more` : ""}`;
}
