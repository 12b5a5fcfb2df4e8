// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { StatusRow, type StatusWish } from "./StatusRow";

afterEach(cleanup);

const OPEN: StatusWish = { key: "o", name: "open", next: ["s"], end: false, was: "open" };
const SETTLED: StatusWish = { key: "s", name: "settled", next: [], end: true, was: "settled" };
const NEW: StatusWish = { key: "n", name: "", next: [], end: false, was: "" };

function shown(status: StatusWish, others: StatusWish[]) {
  const put = vi.fn();
  const remove = vi.fn();
  render(<StatusRow status={status} others={others} put={put} remove={remove} />);
  return { put, remove };
}

test("a status says which may follow it, and each is switched by itself", () => {
  const { put } = shown(OPEN, [SETTLED, NEW]);
  const button = (name: string) => screen.getByRole("button", { name });
  expect(button("settled").getAttribute("aria-pressed")).toBe("true");
  expect(button("new").getAttribute("aria-pressed")).toBe("false");
  fireEvent.click(button("new"));
  fireEvent.click(button("settled"));
  expect(put.mock.calls).toEqual([[{ next: ["s", "n"] }], [{ next: [] }]]);
});

test("its name and whether it is final are changed, and it is removed", () => {
  const { put, remove } = shown(OPEN, []);
  fireEvent.change(screen.getByRole("textbox", { name: "Name of open" }), { target: { value: "opened" } });
  fireEvent.click(screen.getByRole("checkbox", { name: "final" }));
  fireEvent.click(screen.getByRole("button", { name: "Remove open" }));
  expect(put.mock.calls).toEqual([[{ name: "opened" }], [{ end: true }]]);
  expect(remove).toHaveBeenCalledTimes(1);
});

test("one that has no name yet is called the new one", () => {
  shown(NEW, []);
  expect(screen.getByRole("button", { name: "Remove the new status" })).toBeTruthy();
});
