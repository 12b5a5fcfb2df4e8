import { expect, test } from "vitest";
import { find, numberingOf, numberOf } from "./numbering";
import { useSelection } from "./selection";
import { federationOf } from "./testFederation";

const FEDERATION = federationOf({
  arc: [
    ["w", 0, 0],
    ["x", 1, 0],
  ],
  air: [
    ["w", 0, 1],
    ["y", 1, 1],
  ],
});

test("numbers lead there and back over all models", () => {
  for (let n = 0; n < 4; n++) {
    const found = find(FEDERATION, n);
    expect(found && numberOf(FEDERATION, found.model.id, found.globalId)).toBe(n);
  }
  expect(find(FEDERATION, -1)).toBeNull();
  expect(find(FEDERATION, 4)).toBeNull();
  expect(numberOf(FEDERATION, "arc", "y")).toBe(-1);
  expect(numberOf(FEDERATION, "gone", "w")).toBe(-1);
});

test("components are named by model and GlobalId, and what is gone is left out", () => {
  const numbering = numberingOf(FEDERATION);
  const these = numbering.these([3, 0, 99]);
  expect(these).toEqual({ kind: "these", of: { air: ["y"], arc: ["w"] } });
  expect(numbering.numbersOf({ kind: "these", of: { air: ["y", "gone"], no: ["w"] } })).toEqual([3]);
});

test("the selection stays picked when a model before it grows", () => {
  const { pick, follow } = useSelection.getState();
  follow(FEDERATION);
  pick([2]);
  follow(
    federationOf({
      arc: [
        ["w", 0, 0],
        ["new", 0, 0],
        ["x", 1, 0],
      ],
      air: [
        ["w", 0, 1],
        ["y", 1, 1],
      ],
    }),
  );
  expect(useSelection.getState().picked).toEqual([3]);
  follow(federationOf({ arc: [["w", 0, 0]] }));
  expect(useSelection.getState().picked).toEqual([]);
  follow(FEDERATION);
  expect(useSelection.getState().picked).toEqual([2]);
});
