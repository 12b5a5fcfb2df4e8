// @vitest-environment happy-dom
import { expect, test } from "vitest";
import { typedBy } from "./typedBy";

test("the same person finds what was half typed, and anybody else does not", () => {
  typedBy("ida");
  sessionStorage.setItem("a comment", "Half");
  typedBy("ida");
  expect(sessionStorage.getItem("a comment")).toBe("Half");
  typedBy("mara");
  typedBy("ida");
  expect(sessionStorage.getItem("a comment")).toBeNull();
});
