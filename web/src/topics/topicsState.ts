import { perProject } from "../open/perProject";
import { useSession } from "../open/session";

export type Which = "open" | "mine" | "new" | "late" | "all";

interface TopicsShown {
  /** The topic that is open, by its id. */
  opened: string | null;
  which: Which;
  typed: string;
  put(part: Partial<Omit<TopicsShown, "put">>): void;
}

/** Which topics are listed, and which one is open. */
export const useTopicsShown = perProject<TopicsShown>((set) => ({
  opened: null,
  which: "open",
  typed: "",
  put: (part) => set(part),
}));

/** Open a topic on the desk. */
export function openOnDesk(id: string): void {
  useTopicsShown.getState().put({ opened: id });
  useSession.getState().open("topics");
}
