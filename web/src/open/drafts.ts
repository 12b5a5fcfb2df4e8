import { useCallback } from "react";
import { perProject } from "./perProject";

interface Drafts {
  kept: Readonly<Record<string, unknown>>;
}

const useDrafts = perProject<Drafts>(() => ({ kept: {} }), {
  name: "drafts",
  part: ({ kept }) => ({ kept }),
});

/**
 * What is half typed or chosen in a form, named by what it is of: it stays while the desk shows something else, a component
 * that was picked for one, and after a reload.
 */
export function useDraft<T>(of: string, begin: T): [T, (next: T) => void] {
  // Who names a draft says what it is; nothing else is kept under its name.
  const kept = useDrafts((s) => s.kept[of]) as T | undefined;
  const put = useCallback(
    (next: T) => useDrafts.setState(({ kept }) => ({ kept: { ...kept, [of]: next } })),
    [of],
  );
  return [kept === undefined ? begin : kept, put];
}

/** What is typed into a field until it is kept; what was typed after that stays. */
export function useTyped(of: string) {
  const [typed, type] = useDraft(of, "");
  const kept = (what: string) => {
    if ((useDrafts.getState().kept[of] ?? "") === what) type("");
  };
  return { typed, type, kept };
}
