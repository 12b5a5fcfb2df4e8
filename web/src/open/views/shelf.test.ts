import { expect, it } from "vitest";
import type { Viewpoint } from "../../api/client";
import { type Folder, placesOf, shelves, standsIn, unfolded } from "./shelf";

const folder = (id: string, name: string, within: string | null = null): Folder => ({
  id,
  name,
  author: "",
  created_at: "",
  within,
});
const view = (name: string, of: string | null, place = 0, keptFor: Viewpoint["of"] = []) =>
  ({ id: name, name, author: "Ida Fenn", folder: of, place, of: keptFor }) as Viewpoint;
const FOLDERS = [folder("m", "Meeting of 27 November"), folder("s", "Standing views")];
const VIEWS = [view("Roof", null), view("Stair", "m", 1), view("Duct", "m", 0), view("Lost", "deleted")];
const told = (typed: string) =>
  shelves(FOLDERS, VIEWS, typed).map(({ folder: of, views }) => [of?.id ?? "", ...views.map((v) => v.name)]);

it("stands views in their folders' order, and those of none or of a deleted one last", () => {
  expect(told("")).toEqual([["m", "Duct", "Stair"], ["s"], ["", "Roof", "Lost"]]);
});

it("finds by name, maker and folder, and shows no folder without a find", () => {
  expect(told("stair")).toEqual([["m", "Stair"]]);
  expect(told("fenn meeting")).toEqual([["m", "Duct", "Stair"]]);
  expect(told("nowhere")).toEqual([]);
});

const TREE = [
  folder("m", "Meetings"),
  folder("s", "Standing views"),
  folder("n", "November", "m"),
  folder("o", "27 November", "n"),
  folder("x", "Of a deleted one", "gone"),
];
const INSIDE = [view("Early", "m"), view("Duct", "o"), view("Roof", "s"), view("Plan", "n")];
const tree = (typed: string) =>
  shelves(TREE, INSIDE, typed).map(({ folder: of, depth, views, inside }) => [
    of?.name,
    depth,
    views.length,
    inside.map(({ name }) => name).join(" "),
  ]);

it("stands folders in folders, each followed by what is in it", () => {
  expect(tree("")).toEqual([
    ["Meetings", 0, 1, "Early Plan Duct"],
    ["November", 1, 1, "Plan Duct"],
    ["27 November", 2, 1, "Duct"],
    ["Standing views", 0, 1, "Roof"],
    ["Of a deleted one", 0, 0, ""],
  ]);
  // A view is found by every folder that it stands in, and they are shown with it.
  expect(tree("meetings duct").map(([name]) => name)).toEqual(["Meetings", "November", "27 November"]);
});

it("leaves out what stands in a closed folder, however deep", () => {
  const names = (closed: string[]) => unfolded(shelves(TREE, INSIDE, ""), closed).map(({ key }) => key);
  expect(names(["m"])).toEqual(["m", "s", "x"]);
  expect(names(["n", "s"])).toEqual(["m", "n", "s", "x"]);
});

it("knows which folders one cannot be put into", () => {
  const [meetings, standing, november, day] = TREE;
  if (!meetings || !standing || !november || !day) throw new Error("no folders");
  expect([standsIn(day, meetings, TREE), standsIn(meetings, meetings, TREE)]).toEqual([true, true]);
  expect([standsIn(meetings, day, TREE), standsIn(standing, meetings, TREE)]).toEqual([false, false]);
});

it("stands views of topics and of meetings below the others", () => {
  const topic = { kind: "topic" as const, id: "t", name: "AIR 001" };
  const meeting = { kind: "meeting" as const, id: "w", name: "Weekly" };
  const views = [
    view("Of both", null, 0, [topic, meeting]),
    view("Own", null),
    view("Weekly one", null, 0, [meeting]),
    view("In a folder", "m", 0, [topic]),
  ];
  const keys = (typed: string) =>
    shelves(FOLDERS, views, typed).map((each) => [each.key, ...each.views.map(({ name }) => name)]);
  expect(keys("")).toEqual([
    ["m", "In a folder"],
    ["s"],
    ["none", "Own"],
    ["topics", "Of both"],
    ["meetings", "Weekly one"],
  ]);
  expect(keys("air 001")).toEqual([
    ["m", "In a folder"],
    ["topics", "Of both"],
  ]);
});

it("knows where views stand that are moved, so that they can go back one after the other", () => {
  const views = [view("A", "m", 0), view("B", "m", 1), view("C", "m", 2), view("Free", null)];
  const [a, b, c, free] = views.map(({ id }) => id) as [string, string, string, string];
  expect(placesOf(views, [b, a])).toEqual([
    { id: a, folder: "m", before: c },
    { id: b, folder: "m", before: c },
  ]);
  expect(placesOf(views, [free, c])).toEqual([
    { id: free, folder: null, before: null },
    { id: c, folder: "m", before: null },
  ]);
});
