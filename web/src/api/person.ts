import { create } from "zustand";

const KEY = "stairpath.name";

interface Person {
  name: string;
  setName(name: string): void;
}

/** Who sits at this browser; what they save carries the name. */
export const usePerson = create<Person>((set) => ({
  name: (typeof localStorage === "undefined" ? null : localStorage.getItem(KEY)) ?? "",
  setName: (name) => {
    localStorage.setItem(KEY, name);
    set({ name });
  },
}));

export function initials(name: string): string {
  return name
    .split(/\s+/)
    .map((part) => part[0] ?? "")
    .join("")
    .slice(0, 2)
    .toUpperCase();
}

/** The colour of somebody who has chosen none. */
export const NO_COLOUR = "#8fb8b5";

/** Dark or light letters, whichever can be read better on a colour (WCAG 2.2, relative luminance). */
export function inkOn(colour: string): string {
  const [red = 0, green = 0, blue = 0] = [1, 3, 5].map((at) => {
    const share = Number.parseInt(colour.slice(at, at + 2), 16) / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue > 0.18 ? "#1d2733" : "#ffffff";
}
