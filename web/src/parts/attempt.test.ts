// @vitest-environment happy-dom
import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, expect, test } from "vitest";
import { useAttempt } from "./attempt";

afterEach(cleanup);
const fails = () => Promise.reject(new Error("It is full."));

test("what went wrong is said where it was tried, until anything else is tried", async () => {
  const one = renderHook(useAttempt);
  const other = renderHook(useAttempt);
  await act(async () => one.result.current.attempt(fails));
  expect([one.result.current.wrong, other.result.current.wrong]).toEqual(["It is full.", ""]);
  await act(async () => other.result.current.attempt(() => Promise.resolve()));
  expect([one.result.current.wrong, other.result.current.wrong]).toEqual(["", ""]);
});

test("what went wrong goes with its place on the page", async () => {
  const one = renderHook(useAttempt);
  await act(async () => one.result.current.attempt(fails));
  one.unmount();
  expect(renderHook(useAttempt).result.current.wrong).toBe("");
});
