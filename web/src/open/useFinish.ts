import { useEffect } from "react";
import { useTools } from "./tools";

/** Enter ends what the tool in hand has begun. */
export function useFinish(): void {
  const tool = useTools((s) => s.tool);
  useEffect(() => {
    if (!tool?.finish) return;
    const key = (event: KeyboardEvent) => {
      const typing =
        event.target instanceof HTMLElement && event.target.matches("input, textarea, select, button");
      if (event.key !== "Enter" || typing || !tool.finish?.()) return;
      event.preventDefault();
      event.stopPropagation();
    };
    window.addEventListener("keydown", key, true);
    return () => window.removeEventListener("keydown", key, true);
  }, [tool]);
}
