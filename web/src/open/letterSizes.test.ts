import { expect, test } from "vitest";
import { letteringFor, nextLettering } from "./letterSizes";

test("letters are as usual up to a usual window, and follow a larger one", () => {
  expect([letteringFor(1280, 800), letteringFor(1920, 1080), letteringFor(2560, 1080)]).toEqual([1, 1, 1]);
  expect([letteringFor(2560, 1440), letteringFor(3840, 2160), letteringFor(9000, 5000)]).toEqual([
    1.25, 2, 2,
  ]);
});

test("one size larger or smaller, from whatever size", () => {
  expect([nextLettering(1, 1), nextLettering(1.25, 1), nextLettering(2, 1)]).toEqual([1.15, 1.3, 2]);
  expect([nextLettering(1, -1), nextLettering(1.25, -1), nextLettering(0.9, -1)]).toEqual([0.9, 1.15, 0.9]);
});
