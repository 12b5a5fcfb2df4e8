import { expect, test } from "vitest";
import list from "./features.ts?raw";

const folders = import.meta.glob<string>("../*/feature.ts", {
  query: "?raw",
  import: "default",
  eager: true,
});

test("every folder of a feature is on the page's list, once", () => {
  const names = Object.keys(folders).map((path) => path.split("/")[1] ?? "");
  expect(names.length).toBeGreaterThan(15);
  for (const name of names) expect(list.split(`"../${name}/feature"`)).toHaveLength(2);
});

test("features have names of their own, and so have their panels of the desk", () => {
  const all = [...Object.values(folders), list].join("\n");
  for (const found of [/^ {2}name: "(.+)",$/gm, /key: "(\w+)"/g]) {
    const names = [...all.matchAll(found)].map((match) => match[1]);
    expect(new Set(names).size).toBe(names.length);
  }
});
