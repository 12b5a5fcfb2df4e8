import { expect, test } from "vitest";
import { readColumns } from "./columns";

/** Bytes laid out by hand as `core/columns` documents them. */
function packed(): ArrayBuffer {
  const texts = new TextEncoder().encode("W-1\0Tür 2\0");
  const entries = [
    { name: "level", kind: "int32", count: 3, at: 0, bytes: 12 },
    { name: "label", kind: "text", count: 3, at: 16, bytes: texts.length },
    { name: "none", kind: "text", count: 0, at: 32, bytes: 0 },
    { name: "bounds_m", kind: "float64", count: 1, at: 32, bytes: 8 },
  ];
  let head = JSON.stringify(entries);
  head += " ".repeat((8 - ((head.length + 8) % 8)) % 8);
  const begin = 8 + head.length;
  const data = new ArrayBuffer(begin + 40);
  const view = new DataView(data);
  new Uint8Array(data).set(new TextEncoder().encode("COLS"));
  view.setUint32(4, head.length, true);
  new Uint8Array(data).set(new TextEncoder().encode(head), 8);
  [-1, 0, 7].forEach((value, i) => {
    view.setInt32(begin + 4 * i, value, true);
  });
  new Uint8Array(data).set(texts, begin + 16);
  view.setFloat64(begin + 32, 1.5, true);
  return data;
}

test("columns come out as they lie", () => {
  const columns = readColumns(packed());
  expect([...(columns.get("level") as Int32Array)]).toEqual([-1, 0, 7]);
  expect(columns.get("label")).toEqual(["W-1", "Tür 2", ""]);
  expect(columns.get("none")).toEqual([]);
  expect([...(columns.get("bounds_m") as Float64Array)]).toEqual([1.5]);
});

test("what is no columns is refused", () => {
  expect(() => readColumns(new TextEncoder().encode("<!doctype html>").buffer)).toThrow("no columns");
});
