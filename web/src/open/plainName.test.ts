import { expect, test } from "vitest";
import { plainName, plainWithin } from "./plainName";

test("names that standards run together are read as words", () => {
  const read = (names: string[]) => names.map(plainName);
  expect(read(["FireRating", "NetSideArea", "LoadBearing", "Status"])).toEqual([
    "Fire rating",
    "Net side area",
    "Load bearing",
    "Status",
  ]);
  expect(read(["Pset_WallCommon", "Qto_WallBaseQuantities", "Width2", "HasADoor"])).toEqual([
    "Wall common",
    "Wall base quantities",
    "Width 2",
    "Has a door",
  ]);
  expect(plainWithin("FireRating")).toBe("fire rating");
});

test("names of people's own stay as they wrote them", () => {
  for (const name of ["U value", "GFA", "area_m2", "Höhe über NN", "EI30", "", "fire rating", "QH_Planning"])
    expect([plainName(name), plainWithin(name)]).toEqual([name, name]);
});
