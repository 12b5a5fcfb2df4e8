import { useEffect } from "react";
import { useTour } from "../open/views/tourState";

/** While the stage is to be alone the page has the whole screen, where the browser lets it; Escape ends both. */
export function useFullScreen(): void {
  const full = useTour((s) => s.full);
  useEffect(() => {
    if (!full) return;
    const page = document.documentElement;
    // A browser that refuses leaves the stage alone in its window.
    page.requestFullscreen?.().catch(() => undefined);
    const left = () => {
      if (!document.fullscreenElement) useTour.getState().put({ full: false });
    };
    const key = (event: KeyboardEvent) => {
      if (event.key === "Escape") useTour.getState().put({ full: false });
    };
    document.addEventListener("fullscreenchange", left);
    window.addEventListener("keydown", key);
    return () => {
      document.removeEventListener("fullscreenchange", left);
      window.removeEventListener("keydown", key);
      if (document.fullscreenElement) void document.exitFullscreen();
    };
  }, [full]);
}
