import { useEffect } from "react";
import type { Shapes, View } from "../api/client";
import { usePerson } from "../api/person";
import { fromView, poseOf } from "../open/document";
import { onStage } from "../open/origin";
import { useSelection } from "../open/selection";
import { useSession } from "../open/session";
import { Line } from "../open/together/line";
import { type Person, presentsNow, useTogether } from "../open/together/togetherState";
import { useTools } from "../open/tools";
import { announce, following } from "../open/trail/cause";
import { useOpen } from "../open/useStage";
import { useViewState } from "../open/visibility/viewState";
import { Pointer } from "../stage/layers/pointer";

type Said =
  | { kind: "here"; you: string; presenter: string | null; people: Person[] }
  | { kind: "looks"; eye: Shapes["Eye"]; through_m: number; name: string }
  | { kind: "sees"; view: View; did: string; name: string }
  | { kind: "points"; at_m: number[] | null; name: string }
  | { kind: "did"; text: string; name: string };

let told = 0;
let waiting = 0;
/** So long a presenter whose line was lost may be away until those who follow go their own ways. */
const AWAY_MS = 6000;

/** Follow no more if nobody presents for a while. */
function awaitPresenter(): void {
  window.clearTimeout(waiting);
  waiting = window.setTimeout(() => {
    const { following, presenter, line } = useTogether.getState();
    if (!following || presenter !== null || !line) return;
    useTogether.setState({ following: false, away: false });
    useSession.getState().say("The presentation has ended.");
  }, AWAY_MS);
}

/** Keeps the line to the others, and shows what they do to who follows. */
export function useLine(): void {
  const { federation, stage, projectId } = useOpen();
  const name = usePerson((s) => s.name);
  useEffect(() => {
    if (!name) return;
    const at = `${window.location.origin.replace(/^http/, "ws")}/api/projects/${projectId}/together`;
    const line = new Line(`${at}?name=${encodeURIComponent(name)}`, {
      there: (there) => {
        const now = useTogether.getState();
        // Who follows or presents still does once the line is back.
        if (there && now.following) line.tell({ kind: "follows", on: true });
        if (there && now.resumes) line.tell({ kind: "present", on: true });
        if (!there)
          useTogether.setState({ people: [], presenter: null, resumes: presentsNow(now) || now.resumes });
      },
      heard: (said) => heard.current?.(said as Said),
    });
    useTogether.setState({ line });
    return () => {
      line.close();
      useTogether.setState({ line: null, people: [], presenter: null });
    };
  }, [projectId, name]);
  useEffect(() => {
    heard.current = (said) => {
      const now = useTogether.getState();
      const shows = now.following && !now.away;
      if (said.kind === "here") {
        const { you, presenter, people } = said;
        useTogether.setState({ you, presenter, people, resumes: false });
        if (now.following) awaitPresenter();
        if (presenter === null) stage()?.layer(Pointer).show(null, "");
      } else if (said.kind === "did") tell(said.name, said.text);
      else if (said.kind === "sees") {
        if (said.did) tell(said.name, said.did);
        if (!shows) return;
        const { look, picked } = fromView(federation, said.view);
        useViewState.getState().see(look, `${said.name}: ${said.did || "showed this"}`);
        useSelection.getState().pick(picked);
      } else if (said.kind === "looks") {
        if (!shows || useTools.getState().locked) return;
        const limits = { through_m: said.through_m, depth_m: null };
        announce(following(said.name));
        stage()?.take(poseOf({ eye: said.eye, limits }, federation.origin_m));
      } else if (said.kind === "points") {
        const point = said.at_m && onStage(said.at_m, federation.origin_m);
        stage()
          ?.layer(Pointer)
          .show(shows ? point : null, said.name);
      }
    };
  }, [federation, stage]);
}

const heard: { current: ((said: Said) => void) | null } = { current: null };

function tell(name: string, text: string): void {
  told += 1;
  useTogether.setState({ did: { name, text, number: told } });
}
