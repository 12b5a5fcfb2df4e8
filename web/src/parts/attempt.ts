import { useEffect, useState } from "react";
import { useLastTried } from "../open/lastTried";

/** Does something that can go wrong. */
export type Attempt = (work: () => Promise<unknown>) => void;

/** What went wrong with what was tried last, said where it was tried: it is gone when anything else is tried. */
export function useAttempt(): { wrong: string; attempt: Attempt } {
  const [here] = useState(() => ({}));
  const wrong = useLastTried((last) => (last.at === here ? last.wrong : ""));
  useEffect(
    () => () => useLastTried.setState((last) => (last.at === here ? { at: null, wrong: "" } : last)),
    [here],
  );
  const attempt: Attempt = (work) => {
    useLastTried.setState({ at: here, wrong: "" });
    work().catch((failed: unknown) =>
      useLastTried.setState({ at: here, wrong: failed instanceof Error ? failed.message : String(failed) }),
    );
  };
  return { wrong, attempt };
}
