import { create } from "zustand";

const EVERY_MS = 2000;

interface Connection {
  /** Whether the server or its database could not be reached when it was asked last. */
  away: boolean;
  /** Counts how often it came back. */
  back: number;
}

/** Whether the server can be reached; while it cannot it is asked again and again. */
export const useConnection = create<Connection>(() => ({ away: false, back: 0 }));

let asking: ReturnType<typeof setInterval> | undefined;

async function ask(): Promise<void> {
  try {
    const answer = await fetch("/api/health", { cache: "no-store", signal: AbortSignal.timeout(5000) });
    // A full disk is told where something cannot be saved.
    if (answer.ok || answer.status === 507) {
      clearInterval(asking);
      asking = undefined;
      useConnection.setState((s) => ({ away: false, back: s.back + 1 }));
    }
  } catch {
    // Still away; it is asked again.
  }
}

/** Note that the server could not be reached, and ask until it can. */
export function noteAway(): void {
  useConnection.setState({ away: true });
  asking ??= setInterval(() => void ask(), EVERY_MS);
}

/** When the server can be reached again after it could not. */
export function onBack(listener: () => void): () => void {
  return useConnection.subscribe((now, before) => {
    if (now.back !== before.back) listener();
  });
}
