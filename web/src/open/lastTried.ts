import { create } from "zustand";

/** Where on the page something was tried last, and what went wrong with it. */
export const useLastTried = create<{ at: object | null; wrong: string }>(() => ({ at: null, wrong: "" }));
