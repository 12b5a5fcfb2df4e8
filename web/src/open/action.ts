import type { May } from "./mine";
/** What stands in the menu of what is selected, in this order. */
export const MENU = [
  "Fit",
  "Hide",
  "Isolate",
  "Fade the rest",
  "Select all of the same type",
  "Select all of the same system",
  "What is around it",
  "Measure from here",
  "Stand here",
  "Make a topic",
] as const;

/** Something that can be done, found by its name and, where it has one, by its key. */
export interface Action {
  name: string;
  group:
    | "Walk"
    | "Fit"
    | "Trail"
    | "Look"
    | "Lens"
    | "Show"
    | "Select"
    | "Cut"
    | "Measure"
    | "Mark"
    | "Beside"
    | "Together"
    | "Window";
  key?: string;
  /** What it is called in the menu of what is selected; it stands there only with this. */
  menu?: (typeof MENU)[number];
  /** What one has to be allowed in the project for it; it is not there for others. */
  needs?: May;
  run: () => void;
}
