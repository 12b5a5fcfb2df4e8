import { useMemo } from "react";
import { Vector3 } from "three";
import { useLook } from "../camera/useLook";
import { usePlacing } from "../markups/usePlacing";
import { numberingOf, numberOf } from "../open/numbering";
import { useSeen } from "../open/seen";
import { useSelection } from "../open/selection";
import { useSession } from "../open/session";
import { useOpen } from "../open/useStage";
import { disciplinesOf } from "../topics/concerned";
import { openOnDesk } from "../topics/topicsState";
import { useTopicActs } from "../topics/useTopics";
import { useKeepView } from "../viewpoints/viewpoints";
import { calledBy, type Finding, type Findings, partsOf, useLooked } from "./finding";

/** Fitting, isolating and keeping a finding. */
export function useLookAt(findings: Findings | undefined) {
  const { federation } = useOpen();
  const { fitTo } = useLook();
  const keepView = useKeepView();
  const { make } = useTopicActs();
  const { write } = usePlacing();
  return useMemo(() => {
    const { say } = useSession.getState();
    const origin = new Vector3().fromArray(federation.origin_m);
    const numbers = (finding: Finding) =>
      findings
        ? partsOf(findings, finding)
            .map((part) => numberOf(federation, part.model, part.global_id))
            .filter((n) => n >= 0)
        : [];
    /** Fit the place of a finding, with its two components picked; false where they are gone. */
    const frame = async (finding: Finding, at: number, atOnce = false): Promise<boolean> => {
      const there = numbers(finding);
      useLooked.setState({ at });
      if (!there.length) {
        say("Its components are no longer in the models; run the check again.");
        return false;
      }
      useSelection.getState().pick(there);
      const point = new Vector3().fromArray(finding.at_m).sub(origin);
      return fitTo(
        { kind: "points", points: [point], cause: `finding ${at + 1}` },
        { cause: `finding ${at + 1}`, atOnce },
      );
    };
    const isolate = async (finding: Finding, at: number, atOnce = false) => {
      const there = numbers(finding);
      if (!(await frame(finding, at, atOnce))) return false;
      useSeen
        .getState()
        .wish(
          { select: numberingOf(federation).these(there), effect: "only", why: `finding ${at + 1}` },
          `isolated finding ${at + 1}`,
        );
      return true;
    };
    return {
      /** Write a finding over the present view, as the words of a markup. */
      write: (finding: Finding, says: string) => {
        if (!findings) return;
        const point = new Vector3().fromArray(finding.at_m).sub(origin);
        void write(point, `${calledBy(findings, finding)}: ${says}`);
      },
      frame,
      isolate,
      /** Keep a finding as a viewpoint: isolated, and seen as it is fitted. */
      keep: async (finding: Finding, at: number, check: string) => {
        if (!findings || !(await isolate(finding, at, true))) return;
        const name = `${check} ${at + 1}: ${calledBy(findings, finding)}`.slice(0, 120);
        if (await keepView(name)) say(`Kept as the viewpoint "${name}".`);
      },
      /** Make a topic of a finding, with its view and the disciplines of its components, and open it. */
      topic: async (finding: Finding, at: number, check: string, says: string) => {
        if (!findings || !(await isolate(finding, at, true))) return;
        const title = `${calledBy(findings, finding)}: ${says}`.slice(0, 200);
        const view = await keepView(title.slice(0, 120));
        const disciplines = disciplinesOf(federation, numbers(finding));
        const made = view && (await make({ title, views: [view.id], disciplines, labels: [check] }));
        if (made) openOnDesk(made.id);
      },
    };
  }, [findings, federation, fitTo, keepView, make, write]);
}
