import { useState } from "react";

/** What is typed into a field until it is kept; what was typed on meanwhile stays. */
export function useTyped() {
  const [typed, type] = useState("");
  return { typed, type, kept: (what: string) => type((now) => (now === what ? "" : now)) };
}
