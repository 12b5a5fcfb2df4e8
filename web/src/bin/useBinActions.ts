import type { Action } from "../open/action";
import { openBin } from "../open/binState";

const ACTIONS: readonly Action[] = [{ group: "Window", name: "Bin: what was deleted", run: openBin }];

/** The way to the bin by the find box. */
export const useBinActions = () => ACTIONS;
