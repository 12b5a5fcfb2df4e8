import { perProject } from "../perProject";
import type { Line } from "./line";

export interface Person {
  id: string;
  name: string;
  follows: boolean;
  initials: string;
  colour: string;
}

interface TogetherState {
  line: Line | null;
  you: string;
  people: readonly Person[];
  presenter: string | null;
  /** Whether one sees what the presenter sees, and whether one has looked away from it just now. */
  following: boolean;
  away: boolean;
  /** Whether one presented when the line was lost, and goes on with it when it is back. */
  resumes: boolean;
  /** What was done last, and by whom. */
  did: { name: string; text: string; number: number } | null;
}

export const useTogether = perProject<TogetherState>(
  () => ({
    line: null,
    you: "",
    people: [],
    presenter: null,
    following: false,
    away: false,
    resumes: false,
    did: null,
  }),
  {
    name: "together",
    part: (state) => ({ following: state.following, resumes: presentsNow(state) || state.resumes }),
    untilLeft: true,
  },
);

/** Who presents, if it is somebody else. */
export function presenterOf({ people, presenter, you }: TogetherState): Person | null {
  return presenter === you ? null : (people.find(({ id }) => id === presenter) ?? null);
}

export const presentsNow = ({ presenter, you }: TogetherState) => presenter !== null && presenter === you;

/** Follow who presents, or go one's own ways; coming back shows what they see now. */
export function follow(on: boolean): void {
  const { line, presenter, you } = useTogether.getState();
  if (on && (presenter === null || presenter === you)) return;
  useTogether.setState({ following: on, away: false });
  line?.tell({ kind: "follows", on });
}

export function present(on: boolean): void {
  const { line, following } = useTogether.getState();
  if (on && following) follow(false);
  line?.tell({ kind: "present", on });
}

export function handTo(id: string): void {
  useTogether.getState().line?.tell({ kind: "hand", to: id });
}

/** With one key: follow, come back, or look away. */
export function followOrBack(): void {
  const { following, away } = useTogether.getState();
  follow(!following || away);
}
