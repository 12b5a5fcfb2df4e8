import { expect, it } from "vitest";
import type { Viewpoint } from "../../api/client";
import { type Folder, shelves } from "./shelf";

const folder = (id: string, name: string): Folder => ({ id, name, author: "", created_at: "" });
const view = (name: string, of: string | null, place = 0) =>
  ({ id: name, name, author: "Ida Fenn", folder: of, place }) as Viewpoint;
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
