import { useMemo } from "react";
import { answerOf, api } from "../api/client";
import { cornersOf } from "../open/cuts/shape";
import { useCameraCommands } from "../open/looking/useCameraCommands";
import { usePlacing } from "../open/markups/usePlacing";
import { numberingOf, numberOf } from "../open/numbering";
import { onStage } from "../open/origin";
import { useSelection } from "../open/selection";
import { useSession, withErrorNotice } from "../open/session";
import { disciplinesOf } from "../open/topics/concerned";
import { useTopicActs } from "../open/topics/useTopics";
import { useOpen } from "../open/useStage";
import { useKeepView } from "../open/views/viewpoints";
import { ruleOf, useViewState } from "../open/visibility/viewState";
import { calledBy, type Finding, type Findings, ofFindings, partsOf, useLooked } from "./finding";

/** So many components of a finding decide from where it is seen. */
const MOST_PARTS = 50;

/** The check that findings are of. */
export type Check = Readonly<Record<"id" | "name", string>>;

/** The box around a finding that is looked at goes with the next one. */
const AROUND = "Around finding ";

/** Looking at, fitting, isolating and keeping a finding. */
export function useLookAt(findings: Findings | undefined) {
  const { federation, projectId } = useOpen();
  const { fitTo } = useCameraCommands();
  const keepView = useKeepView();
  const { make } = useTopicActs();
  const { write } = usePlacing();
  return useMemo(() => {
    const { say } = useSession.getState();
    const numbers = (finding: Finding) =>
      findings
        ? partsOf(findings, finding)
            .map((part) => numberOf(federation, part.model, part.global_id))
            .filter((n) => n >= 0)
        : [];
    /** The numbers of a finding that is looked at now; none, said so, where its components are gone. */
    const looked = (finding: Finding, at: number): number[] => {
      const there = numbers(finding);
      useLooked.setState({ at });
      if (!there.length) say("Its components are no longer in the models. Run the check again.");
      return there;
    };
    /** Fit the place of a finding, with its two components picked; false where they are gone. */
    const frame = async (finding: Finding, at: number, atOnce = false): Promise<boolean> => {
      const there = looked(finding, at);
      if (!there.length) return false;
      useSelection.getState().pick(there);
      const point = onStage(finding.at_m, federation.origin_m);
      return fitTo(
        { kind: "points", points: [point], cause: `finding ${at + 1}` },
        { cause: `finding ${at + 1}`, atOnce },
      );
    };
    /** See both parts with what is around them: the rest faded, boxed where something stands before them from everywhere. */
    const sight = async (finding: Finding, at: number, atOnce = false): Promise<boolean> => {
      const there = looked(finding, at);
      if (!findings || !there.length) return false;
      let went = false;
      const done = await withErrorNotice(async () => {
        const found = await answerOf(
          api.POST("/api/projects/{project_id}/sighting", {
            params: { path: { project_id: projectId } },
            body: {
              components: partsOf(findings, finding)
                .slice(0, MOST_PARTS)
                .map(({ model, global_id }) => ({ model, global_id })),
              at_m: finding.at_m,
            },
          }),
        );
        useSelection.getState().pick(there);
        const why = `finding ${at + 1}`;
        const { rules, cuts, change } = useViewState.getState();
        const rule = ruleOf({ select: numberingOf(federation).these(there), effect: "fade_rest", why });
        const others = cuts.filter(({ name }) => !name.startsWith(AROUND));
        const box = { id: crypto.randomUUID().slice(0, 8), name: `${AROUND}${at + 1}`, off: false };
        const changed = change(
          {
            // What another finding faded is no longer what is looked at.
            rules: [...rules.filter((each) => !/^finding \d+$/.test(each.why)), rule],
            cuts: found.boxed ? [...others, { ...box, shape: found.around }] : others,
          },
          `looked at finding ${at + 1}`,
        );
        if (!changed) return;
        went = await fitTo(
          {
            kind: "points",
            points: cornersOf(found.around).map((corner) => onStage(corner, federation.origin_m)),
            cause: why,
          },
          {
            look: { bearing_deg: found.bearing_deg, tilt_deg: found.tilt_deg },
            lens: { projection: "perspective", angleDeg: found.angle_deg },
            cause: why,
            atOnce,
          },
        );
      });
      return done && went;
    };
    const isolate = async (finding: Finding, at: number, atOnce = false) => {
      const there = numbers(finding);
      if (!(await frame(finding, at, atOnce))) return false;
      useViewState
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
        const point = onStage(finding.at_m, federation.origin_m);
        void write(point, `${calledBy(findings, finding)}: ${says}`);
      },
      sight,
      isolate,
      /** Keep a finding as a viewpoint, as it is looked at. */
      keep: async (finding: Finding, at: number, check: string) => {
        if (!findings || !(await sight(finding, at, true))) return;
        const name = `${check} ${at + 1}: ${calledBy(findings, finding)}`.slice(0, 120);
        if (await keepView(name)) say(`Kept as the viewpoint "${name}".`);
      },
      /** Make a topic of findings, the worst first, with a view of each and the disciplines of their components. */
      topic: async (ats: readonly number[], check: Check, says: (finding: Finding) => string) => {
        if (!findings) return null;
        const some = ats.flatMap((at) => findings.findings[at] ?? []);
        const [first] = some;
        if (!first) return null;
        const more = some.length > 1 ? ` and ${some.length - 1} more` : "";
        const title = `${calledBy(findings, first)}: ${says(first)}${more}`.slice(0, 200);
        const views: string[] = [];
        for (const [k, finding] of some.entries()) {
          if (!(await sight(finding, ats[k] ?? 0, true))) return null;
          const view = await keepView(`${calledBy(findings, finding)}: ${says(finding)}`.slice(0, 120));
          if (!view) return null;
          views.push(view.id);
        }
        const disciplines = disciplinesOf(federation, some.flatMap(numbers));
        const kind = first.worst.kind === "overlap" ? "overlap" : "too near";
        const finding = ofFindings(findings, some, check.id);
        return make({ title, views, disciplines, kind, labels: [check.name], finding });
      },
    };
  }, [findings, federation, projectId, fitTo, keepView, make, write]);
}
