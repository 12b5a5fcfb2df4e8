import { expect, test } from "vitest";
import { conditionOf, draftOf, howsOf } from "../open/selections/conditions";
import {
  groupName,
  keyOf,
  membersOf,
  pathTo,
  rowsOf,
  selectorOf,
  stepped,
  treeOf,
} from "../open/selections/groups";

test.each([
  ["property:P.Diameter", "over", "150 mm", 150, "mm"],
  ["property:P.Diameter", "over", "0,15", 0.15, ""],
  ["property:P.Diameter", "under", " -3.5 °C ", -3.5, "°C"],
  ["property:P.Diameter", "equal", "150mm", 150, "mm"],
  ["property:P.FireRating", "equal", "EI60", "EI60", ""],
  ["property:P.Lot", "equal", "3", "3", ""],
  ["room", "equal", "1.07 Dry laboratory", "1.07 Dry laboratory", ""],
  ["tag", "contains", "AD-1", "AD-1", ""],
] as const)("%s %s %s", (what, how, typed, value, unit) => {
  expect(conditionOf({ what, how, typed })).toEqual({ what, how, value, unit });
});

test.each(["100 to 150 mm", "100 and 150 mm", "100-150mm", "100 150 mm"])("between %s", (typed) => {
  expect(conditionOf({ what: "quantity:Q.Length", how: "between", typed })).toEqual({
    what: "quantity:Q.Length",
    how: "between",
    value: [100, 150],
    unit: "mm",
  });
});

test("what is not typed to its end is no condition", () => {
  for (const typed of ["", "  ", "wide"])
    expect(conditionOf({ what: "property:A.B", how: "over", typed })).toBeNull();
  expect(conditionOf({ what: "property:A.B", how: "between", typed: "100" })).toBeNull();
  expect(conditionOf({ what: "level", how: "missing", typed: "left over" })).toEqual({
    what: "level",
    how: "missing",
    value: null,
    unit: "",
  });
});

test("a kept condition is typed as it was", () => {
  for (const condition of [
    { what: "property:P.D", how: "over", value: 150, unit: "mm" },
    { what: "property:P.D", how: "between", value: [100, 150], unit: "mm" },
    { what: "system", how: "equal", value: "Sea-water supply", unit: "" },
    { what: "property:P.Fire", how: "missing", value: null, unit: "" },
  ] as const) {
    const again = {
      ...condition,
      value: Array.isArray(condition.value) ? [...condition.value] : condition.value,
    };
    expect(conditionOf(draftOf(again as Parameters<typeof draftOf>[0]))).toEqual(again);
  }
  expect(howsOf("level")).not.toContain("over");
  expect(howsOf("property:A.B")).toContain("over");
});

const sum = (value: number, from_mesh = 0) => ({ value, unit: "m", from_file: 1, from_mesh, without: 0 });
const GROUPS = [
  { key: ["Level 00", "IfcWall"], says: ["Level 00", "Wall"], count: 2, sums: [sum(4)] },
  { key: ["Level 00", "IfcPipeSegment"], says: ["Level 00", "Pipe segment"], count: 1, sums: [sum(1, 2)] },
  { key: ["Level 01", "IfcWall"], says: ["Level 01", "Wall"], count: 1, sums: [sum(3)] },
];
const GROUP_OF = Int32Array.from([0, -1, 1, 0, 2]);

test("groups make a tree whose counts and sums are those of what is in it", () => {
  const [ground, first] = treeOf(GROUPS, 2);
  expect([ground?.count, first?.count]).toEqual([3, 1]);
  expect(ground?.sums).toEqual([{ value: 5, unit: "m", from_file: 2, from_mesh: 2, without: 0 }]);
  expect(ground?.inner.map((group) => group.path.at(-1))).toEqual(["IfcWall", "IfcPipeSegment"]);
  expect(ground && membersOf(ground, GROUP_OF)).toEqual([0, 2, 3]);
});

test("only what is open is listed, and a component leads to its groups", () => {
  const tree = treeOf(GROUPS, 2);
  expect(rowsOf(tree, [], GROUP_OF).map((row) => row.key)).toEqual(["Level 00", "Level 01"]);
  const open = pathTo(3, GROUPS, GROUP_OF);
  expect(open).toEqual(["Level 00", keyOf(["Level 00", "IfcWall"])]);
  expect(rowsOf(tree, open, GROUP_OF).map((row) => row.key)).toEqual([
    "Level 00",
    keyOf(["Level 00", "IfcWall"]),
    "c0",
    "c3",
    keyOf(["Level 00", "IfcPipeSegment"]),
    "Level 01",
  ]);
  expect(pathTo(1, GROUPS, GROUP_OF)).toEqual([]);
});

test("a group is selected by what it is called, within the conditions", () => {
  const level = { kind: "of", what: "level", value: "Level 00" };
  expect(selectorOf(["Level 00"], ["level", "class"], [], "")).toEqual(level);
  expect(selectorOf([""], ["property:FireRating"], [], "")).toEqual({
    kind: "where",
    of: [{ what: "property:FireRating", how: "missing", value: null, unit: "" }],
    called: "",
  });
  const condition = { what: "system", how: "equal", value: "Sea", unit: "" } as const;
  const where = { kind: "where", of: [condition], called: "Sea water" };
  expect(selectorOf([], ["level"], [condition], "Sea water")).toEqual(where);
  expect(selectorOf(["Level 00"], ["level"], [condition], "Sea water")).toEqual({
    kind: "both",
    of: [where, level],
  });
  expect(selectorOf([], ["level"], [], "")).toEqual({ kind: "all" });
});

test("what is read the same is one group, whichever class of the standard a program writes", () => {
  const groups = [
    { key: ["IfcWall"], says: ["Wall"], count: 2, sums: [] },
    { key: ["IfcWallStandardCase"], says: ["Wall"], count: 3, sums: [] },
    { key: [""], says: [""], count: 1, sums: [] },
  ];
  const tree = treeOf(groups, 1);
  expect(tree.map((group) => [groupName(group, ["class"]), group.count, group.path])).toEqual([
    ["Wall", 5, ["IfcWall"]],
    ["no class", 1, [""]],
  ]);
  expect(pathTo(1, groups, Int32Array.from([0, 1, 2]))).toEqual(["IfcWall"]);
});

test("the steps of a grouping are put, taken away, and change places", () => {
  expect(stepped(["level", "class"], 0, "class")).toEqual(["class", "level"]);
  expect(stepped(["level", "class"], 1, "")).toEqual(["level"]);
  expect(stepped(["level", "class"], 2, "room")).toEqual(["level", "class", "room"]);
  expect(stepped(["level", "class"], 2, "level")).toEqual(["level", "class"]);
  expect(stepped(["level"], 0, "room")).toEqual(["room"]);
});
