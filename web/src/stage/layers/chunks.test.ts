import { Vector3 } from "three";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import type { FederatedModel } from "../../api/client";
import { Chunks } from "./chunks";
import type { SharedUniforms } from "./materials";

const asked: string[] = [];
beforeEach(() => {
  asked.length = 0;
  vi.stubGlobal("fetch", (address: string) => {
    asked.push(address.split("/").at(-1) ?? "");
    return new Promise(() => undefined); // it never comes: what is asked for first is what counts
  });
});
afterEach(() => vi.unstubAllGlobals());

/** A model of chunks, each with its distance to the east and how large it is. */
function model(places: Record<string, [atM: number, sizeM: number]>): FederatedModel {
  const chunks = Object.entries(places).map(([sha256, [atM, sizeM]]) => ({
    sha256,
    matrix: [1, 0, 0, atM, 0, 1, 0, 0, 0, 0, 1, 0],
    bounds_m: [0, 0, 0, sizeM, 0, 0],
    triangles: 12,
    size: 1,
  }));
  const made: Partial<FederatedModel> = { id: "m", name: "M", first: 0, chunks };
  return made as FederatedModel;
}

function wanting(places: Record<string, [number, number]>): Chunks {
  const chunks = new Chunks(
    {} as SharedUniforms,
    () => new Vector3(),
    () => undefined,
  );
  chunks.setModels("p", [model(places)]);
  return chunks;
}

test("what looks largest from the eye is fetched first: large before small, near before far", () => {
  wanting({ farSmall: [100, 5], nearSmall: [10, 5], farLarge: [100, 80], nearLarge: [10, 80] });
  expect(asked).toEqual(["nearLarge", "farLarge", "nearSmall", "farSmall"]);
});

test("only so many are fetched at once, and what the eye stands in counts as a metre away", () => {
  const places: Record<string, [number, number]> = { here: [0, 2] };
  for (let k = 0; k < 20; k++) places[`c${k}`] = [10 + k, 5];
  const chunks = wanting(places);
  expect(asked[0]).toBe("here");
  expect(asked.slice(1)).toEqual(asked.slice(1).toSorted((a, b) => Number(a.slice(1)) - Number(b.slice(1))));
  expect(asked.length).toBeLessThan(chunks.total);
  expect(chunks.pending).toBe(chunks.total);
});

test("what is no longer wanted is not fetched", () => {
  const chunks = wanting({ a: [10, 5] });
  chunks.setModels("p", []);
  expect([chunks.total, asked]).toEqual([0, ["a"]]);
});
