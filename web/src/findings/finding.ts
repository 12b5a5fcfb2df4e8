import type { Shapes } from "../api/client";
import { perProject } from "../open/perProject";
import type { Spoken } from "../open/units";

export type Finding = Shapes["Finding"];
export type Findings = Shapes["Findings"];

/** Which check is open, and which of its findings is looked at. */
interface Looked {
  opened: string | null;
  at: number | null;
}

export const useLooked = perProject<Looked>(() => ({ opened: null, at: null }));

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
