import { perProject } from "../perProject";
import { useSession } from "../session";
import type { Group, Sort, Which } from "./listed";

interface TopicsShown {
  /** Whether meetings stand on the desk in place of topics. */
  meeting: boolean;
  /** The topic that is open, by its id. */
  opened: string | null;
  which: Which;
  typed: string;
  /** Whether topics are marked on the stage. */
  marked: boolean;
  sort: Sort;
  /** Whether what is sorted by falls from the first row to the last. */
  falling: boolean;
  group: Group;
  /** Topics that something is to be done with together, by their ids. */
  ticked: readonly string[];
  /** Topics as a table: below the stage, in its place, or not at all. */
  table: "below" | "alone" | null;
  /** A new topic is to be begun: its title is asked for. */
  beginning: boolean;
  put(part: Partial<Omit<TopicsShown, "put">>): void;
}

/** Which topics are listed, and which one is open. */
export const useTopicsShown = perProject<TopicsShown>(
  (set) => ({
    meeting: false,
    opened: null,
    which: "open",
    typed: "",
    marked: true,
    sort: "number",
    falling: false,
    group: "none",
    ticked: [],
    table: null,
    beginning: false,
    put: (part) => set(part),
  }),
  { name: "topics", part: ({ opened, meeting, table }) => ({ opened, meeting, table }) },
);

/** Tick a topic, or take its tick away. */
export function tickTopic(id: string): void {
  useTopicsShown.setState(({ ticked }) => ({
    ticked: ticked.includes(id) ? ticked.filter((each) => each !== id) : [...ticked, id],
  }));
}

/** Begin a new topic of what is seen and selected. */
export function beginTopic(): void {
  useTopicsShown.getState().put({ opened: null, meeting: false, beginning: true });
  useSession.getState().open("topics");
}

/** Open a topic on the desk. */
export function openOnDesk(id: string): void {
  useTopicsShown.getState().put({ opened: id, meeting: false });
  useSession.getState().open("topics");
}
