import { expect, test } from "vitest";
import { colourTexture, StateTable } from "./states";

function table(count: number): StateTable {
  const states = new StateTable();
  states.resize(count);
  return states;
}

const texel = (states: StateTable, i: number) => {
  const data = states.texture.image.data as Uint8Array;
  return [data[i * 4], data[i * 4 + 1], data[i * 4 + 2]];
};

test("shown, faded and hidden are levels of red", () => {
  const states = table(4);
  states.setVisible(new Uint8Array([2, 1, 0]));
  expect([0, 1, 2, 3].map((i) => texel(states, i)[0])).toEqual([255, 128, 0, 0]);
  expect([0, 1, 2].map((i) => states.isVisible(i))).toEqual([true, true, false]);
  expect([0, 1, 2].map((i) => states.isSolid(i))).toEqual([true, false, false]);
  expect(states.anyFaded).toBe(true);
  states.setVisible(new Uint8Array([2, 2, 0, 2]));
  expect(states.anyFaded).toBe(false);
});

test("picked stays picked while the cursor passes over it", () => {
  const states = table(3);
  states.setPicked([1]);
  expect(states.setHovered(1)).toBe(true);
  expect(texel(states, 1)[1]).toBe(255);
  states.setHovered(2);
  expect([texel(states, 1)[1], texel(states, 2)[1]]).toEqual([255, 128]);
  states.setHovered(-1);
  expect(texel(states, 2)[1]).toBe(0);
});

test("letting go of what is under the cursor leaves it marked as such", () => {
  const states = table(2);
  states.setHovered(0);
  states.setPicked([0]);
  states.setPicked([]);
  expect(texel(states, 0)[1]).toBe(128);
});

test("the cursor resting on one component changes nothing", () => {
  const states = table(2);
  states.setHovered(0);
  const before = states.changes;
  expect(states.setHovered(0)).toBe(false);
  expect(states.changes).toBe(before);
});

test("a building of many components has rows enough", () => {
  const states = table(2500);
  states.setVisible(new Uint8Array(2500).fill(2));
  expect(states.texture.image.height).toBe(3);
  expect(states.isSolid(2499)).toBe(true);
});

test("colours are laid out one texel a component", () => {
  const texture = colourTexture(["#ff8000", "#0a0b0c"], [1, 0, 7]);
  const data = [...((texture.image.data as Uint8Array).slice(0, 12) ?? [])];
  expect(data).toEqual([10, 11, 12, 0, 255, 128, 0, 0, 128, 128, 128, 0]);
});

test("each texel carries the hatch of its cut faces", () => {
  const texture = colourTexture(["#ff8000"], [0, 0], new Int32Array([-1, 0]), [3, 6]);
  const data = texture.image.data as Uint8Array;
  expect([data[3], data[7]]).toEqual([3, 6]);
});

test("what no cut goes through is told in blue, until others are", () => {
  const states = table(3);
  states.setWhole(new Set([0, 2]));
  expect([0, 1, 2].map((i) => texel(states, i)[2])).toEqual([255, 0, 255]);
  states.setWhole(new Set([1]));
  expect([0, 1, 2].map((i) => texel(states, i)[2])).toEqual([0, 255, 0]);
});

test("a tint stands in for the own colour of those that have one", () => {
  const texture = colourTexture(["#ff8000"], [0, 0], new Int32Array([-1, 0x3f83c2]));
  const data = [...((texture.image.data as Uint8Array).slice(0, 8) ?? [])];
  expect(data).toEqual([255, 128, 0, 0, 0x3f, 0x83, 0xc2, 0]);
});

test("states are texels: hover and pick do not undo each other", () => {
  const table = new StateTable();
  table.resize(3);
  table.setVisible(new Uint8Array([2, 1, 0]));
  expect([0, 1, 2].map((i) => table.isVisible(i))).toEqual([true, true, false]);
  expect([0, 1, 2].map((i) => table.isSolid(i))).toEqual([true, false, false]);
  expect(table.anyFaded).toBe(true);
  const green = (i: number) => (table.texture.image.data as Uint8Array)[i * 4 + 1];
  table.setPicked([0]);
  table.setHovered(0);
  expect(green(0)).toBe(255);
  table.setHovered(1);
  expect([green(0), green(1)]).toEqual([255, 128]);
  expect(table.setHovered(1)).toBe(false);
  table.setPicked([]);
  table.setHovered(-1);
  expect([green(0), green(1)]).toEqual([0, 0]);
});
