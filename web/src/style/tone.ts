// Created by `make schema` from the core. Do not edit.

/** The drawing office's colours, of the page and of what is marked on the stage. */
export const tone = {
  film: "#f3f1ec",
  paper: "#faf8f4",
  line: "#d9d3c6",
  ink: "#1e2b36",
  soft: "#54616c",
  pick: "#e08a1e",
  pickInk: "#8f5206",
  here: "#0b6f78",
  plum: "#7a3b6b",
  wrong: "#a3361b",
} as const;
