/** Something that the find box finds, and what is done when it is chosen. */
export interface Found {
  id: string;
  name: string;
  kind: string;
  hint: string;
  run: () => void;
}
