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
  group: Group;
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
    group: "none",
    beginning: false,
    put: (part) => set(part),
  }),
  { name: "topics", part: ({ opened, meeting }) => ({ opened, meeting }) },
);

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
