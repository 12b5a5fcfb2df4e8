import { useEffect, useState } from "react";
import { setLettering } from "../style/lettering";
import { useHabits } from "./habits";
import { letteringFor } from "./letterSizes";

/** How large letters are now. */
export const letteringNow = () => {
  const { lettering } = useHabits.getState();
  return lettering === "auto" ? letteringFor(window.innerWidth, window.innerHeight) : lettering;
};

/** How large letters are: what this person wants, else what the window needs. */
export function useLetteringShare(): number {
  const [share, setShare] = useState(letteringNow);
  const lettering = useHabits((s) => s.lettering);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is now comes from the habits
  useEffect(() => {
    const put = () => setShare(letteringNow());
    put();
    window.addEventListener("resize", put);
    return () => window.removeEventListener("resize", put);
  }, [lettering]);
  return share;
}

/** Keeps the page's letters so large. */
export function useLettering(): void {
  const share = useLetteringShare();
  useEffect(() => setLettering(share), [share]);
}
