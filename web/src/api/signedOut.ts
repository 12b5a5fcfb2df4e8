import { create } from "zustand";

interface SignedOut {
  /** How often the server said so since somebody signed in or out here. */
  times: number;
  /** Whether one signed out in this tab. */
  byOneself: boolean;
  note(): void;
}

/** That the server knows nobody at this browser any more, though the page took somebody to be signed in. */
export const useSignedOut = create<SignedOut>((set) => ({
  times: 0,
  byOneself: false,
  note: () => set((s) => ({ times: s.times + 1 })),
}));
