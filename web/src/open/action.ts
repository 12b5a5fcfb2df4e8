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
  menu?: string;
  run: () => void;
}
