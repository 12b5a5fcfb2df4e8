import { Vector3 } from "three";
import { expect, test, vi } from "vitest";
import { TopicMarks } from "./topicMarks";

const frame = {
  view: "stage",
  letters: 2,
  size: { width: 800, height: 600 },
  pixelOf: ({ x, y, z }: Vector3) => ({ x, y, before: z > 0 }),
} as Parameters<TopicMarks["covers"]>[0];

test("plates say what they cover, one for those that crowd, and nothing of what is not in view", () => {
  const marks = new TopicMarks(vi.fn());
  const sign = (id: string, x: number, y: number, z = 1) => ({ id, called: id, at: new Vector3(x, y, z) });
  marks.show([
    sign("1", 100, 100),
    sign("2", 130, 100),
    sign("3", 400, 300),
    sign("4", 900, 300),
    sign("5", 400, 200, -1),
  ]);
  expect(marks.covers(frame)).toEqual([
    { x: 100, y: 100, w: 48, h: 48 },
    { x: 400, y: 300, w: 48, h: 48 },
  ]);
  const clicked = vi.fn();
  marks.clicked = clicked;
  expect(marks.click(110, 95)).toBe(true);
  expect(clicked).toHaveBeenCalledWith(["1", "2"]);
  marks.leaveOut(true);
  expect(marks.covers(frame)).toEqual([]);
  expect(marks.click(110, 95)).toBe(false);
});
