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
