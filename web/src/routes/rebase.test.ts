import { expect, test } from "vitest";
import { moved } from "./rebase";

test("all points of what is asked for and answered lie so much further, and nothing else changes", () => {
  const asked = {
    start: { point_m: [1, 2, 3], label: "a point" },
    end: { room: 4, point_m: null, label: "0.02" },
    body: "standing",
  };
  const answer = {
    points_m: [
      [0, 0, 0],
      [1, 0, 0],
    ],
    narrowest: { at_m: [5, 5, 0], size_m: 0.8 },
    length_m: 1,
  };
  expect(moved({ asked, answer, first: null }, [10, -1, 0])).toEqual({
    asked: { ...asked, start: { point_m: [11, 1, 3], label: "a point" } },
    answer: {
      points_m: [
        [10, -1, 0],
        [11, -1, 0],
      ],
      narrowest: { at_m: [15, 4, 0], size_m: 0.8 },
      length_m: 1,
    },
    first: null,
  });
});
