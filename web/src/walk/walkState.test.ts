import { expect, test } from "vitest";
import type { Shapes } from "../api/client";
import { spokenStop } from "./walkState";

type Stop = Shapes["Stop"];

const DUCT = { model: "m", model_name: "QH-AIR", discipline: "AIR", global_id: "g", label: "Duct AD-114" };
const TRADES = [{ code: "AIR", name: "Air", colour: "#5a7fa8" }];

function stop(kind: Stop["kind"], found_m: number | null = null, needed_m: number | null = null): Stop {
  return { kind, component: DUCT, found_m, needed_m };
}

test.each([
  [stop("height", 1.74, 1.8), "Duct AD-114, air: 1.74 m clear, 1.80 m needed"],
  [stop("width", 0.72, 0.8), "Duct AD-114, air: 0.72 m clear, 0.80 m needed"],
  [stop("step", 0.449, 0.25), "Duct AD-114, air: a step of 0.45 m, 0.25 m at most"],
  [stop("drop", 0.6, 0.25), "Duct AD-114, air: 0.60 m down, 0.25 m at most"],
  [stop("slope", 0.1, 1 / 12), "Duct AD-114, air: a slope of 1:10.0, 1:12 at most"],
  [stop("edge"), "Duct AD-114, air: the floor ends here"],
  [stop("solid"), "Duct AD-114, air stands in the way"],
  [stop("step"), "Duct AD-114, air: a step"],
  [stop("slope"), "Duct AD-114, air: too steep"],
])("a stop says what blocks and how much is missing", (given, line) => {
  expect(spokenStop(given, TRADES)).toBe(line);
});

test("without a discipline the model's name stands for it, and without a component there is still a line", () => {
  expect(spokenStop(stop("solid"))).toBe("Duct AD-114, QH-AIR stands in the way");
  expect(spokenStop({ ...stop("solid"), component: null }, TRADES)).toBe(
    "Something without a name stands in the way",
  );
});
