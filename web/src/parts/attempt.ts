import { useState } from "react";

/** Does something that can go wrong. */
export type Attempt = (work: () => Promise<unknown>) => void;

/** What went wrong with what was tried last, said by the page: where a project is gone, so is its card. */
export function useAttempt(): { wrong: string; attempt: Attempt } {
  const [wrong, setWrong] = useState("");
  const attempt: Attempt = (work) => {
    setWrong("");
    work().catch((failed: unknown) => setWrong(failed instanceof Error ? failed.message : String(failed)));
  };
  return { wrong, attempt };
}
