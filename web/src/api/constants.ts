// Created by `make schema` from the core. Do not edit.

/** The bearing off building north, the tilt and the lens from which a building is first seen. */
export const FIRST_VIEW = { bearingDeg: 32.0, tiltDeg: 24.0, angleDeg: 30.0 } as const;

/** The narrowest angle of view. */
export const LEAST_ANGLE_DEG: number = 1.0;

/** The widest angle of view. */
export const MOST_ANGLE_DEG: number = 120.0;

/** The usual angle of view within a building. */
export const INSIDE_ANGLE_DEG: number = 60.0;

/** How high the eye of a standing person is. */
export const EYE_HEIGHT_M: number = 1.6;

/** How high the topmost storey is taken to be, since no storey above it says so. */
export const TOP_STOREY_M: number = 4.0;

/** How high above a storey its plan is cut. */
export const STOREY_CUT_M: number = 1.2;

/** How thick a band or a cut box is at least. */
export const LEAST_CUT_M: number = 0.001;

/** So many planes cut a view at once. */
export const MOST_PLANES: number = 24;

/** What overlaps by less only touches. */
export const TOUCH_M: number = 0.001;

/** How far behind the cut a sheet shows what lies there. */
export const SHEET_DEPTH_M: number = 3.0;

/** The formats in which a sheet is saved. */
export const SHEET_FORMATS = [
  { form: "svg", name: "SVG" },
  { form: "pdf", name: "PDF" },
  { form: "dxf", name: "DXF, in metres" },
  { form: "dxf_mm", name: "DXF, in millimetres" },
] as const;

/** What of a component can be asked besides its properties, and where it is offered. */
export const ATTRIBUTES = [
  { what: "level", label: "Level", plural: "levels", groups: true, listed: false },
  { what: "room", label: "Room", plural: "rooms", groups: true, listed: false },
  { what: "discipline", label: "Discipline", plural: "disciplines", groups: true, listed: false },
  { what: "model", label: "Model", plural: "models", groups: true, listed: false },
  { what: "class", label: "Class", plural: "classes", groups: true, listed: true },
  { what: "type", label: "Type", plural: "types", groups: true, listed: true },
  { what: "system", label: "System", plural: "systems", groups: true, listed: true },
  { what: "material", label: "Material", plural: "materials", groups: true, listed: true },
  { what: "name", label: "Name", plural: "names", groups: false, listed: false },
  { what: "tag", label: "Tag", plural: "tags", groups: false, listed: false },
] as const;

/** The disciplines, with their codes. */
export const DISCIPLINES = [
  ["ARC", "Architecture"],
  ["STR", "Structure"],
  ["AIR", "Air"],
  ["WTR", "Water"],
  ["ELE", "Electrical"],
  ["FIR", "Fire protection"],
  ["FIT", "Fit-out"],
  ["OTH", "Other"],
] as const;

/** What one may in a project, from the least to the most. */
export const ROLES = [
  { role: "look", name: "Look", says: "sees everything and changes nothing" },
  {
    role: "comment",
    name: "Comment",
    says: "also writes topics and comments and keeps viewpoints, and changes their own",
  },
  { role: "coordinate", name: "Coordinate", says: "does everything in the project" },
  { role: "own", name: "Own", says: "also says who is in it, names it and moves it to the bin" },
] as const;

/** Sheets of paper by name, from the smallest of each family. */
export const PAPERS = [
  "A4",
  "A3",
  "A2",
  "A1",
  "A0",
  "ANSI A",
  "ANSI B",
  "ANSI C",
  "ANSI D",
  "ANSI E",
  "ARCH A",
  "ARCH B",
  "ARCH C",
  "ARCH D",
  "ARCH E",
] as const;

/** The rules by which pairs belong together and are left out of findings. */
export const LEFT_OUT = {
  hosted: "one is hosted in the other",
  assembly: "both are parts of one assembly",
  fitting: "a fitting and what it joins, of one system",
} as const;

/** Letters of a topic's title. */
export const LONGEST_TITLE: number = 200;

/** Letters of a description or a comment. */
export const LONGEST_TEXT: number = 20000;

/** Where a change says in words what the import of a file did. */
export const IMPORT = "import" as const;

/** Days before this are taken for mistakes. */
export const EARLIEST_DAY = "1900-01-01" as const;

/** Days after this are taken for mistakes. */
export const LATEST_DAY = "2200-12-31" as const;
