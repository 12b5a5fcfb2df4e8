// @vitest-environment happy-dom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import type { Line } from "../open/together/line";
import { useTogether } from "../open/together/togetherState";
import { People } from "./People";

vi.mock("../open/mine", () => ({ useMay: () => () => true }));

const tell = vi.fn();
const IDA = { id: "i", name: "Ida Fenn", follows: false, initials: "", colour: "" };
const TAM = { id: "t", name: "Tam Kerr", follows: false, initials: "", colour: "" };

beforeEach(() => {
  tell.mockClear();
  const line: Partial<Line> = { tell };
  useTogether.setState({
    line: line as Line,
    you: "i",
    people: [IDA, TAM],
    presenter: null,
    following: false,
    away: false,
  });
});
afterEach(cleanup);

const press = (name: string) => userEvent.click(screen.getByRole("button", { name }));

test("everybody who is here is named, and oneself is told apart", () => {
  render(<People />);
  expect(screen.getByText("2 people here")).toBeTruthy();
  expect(screen.getByText(/Ida Fenn/).textContent).toBe("Ida Fenn (you)");
  expect(screen.queryByRole("button", { name: /Hand over/ })).toBeNull();
});

test("one begins to present, hands over, and stops", async () => {
  const { rerender } = render(<People />);
  await press("Present to the others");
  expect(tell.mock.calls.at(-1)).toEqual([{ kind: "present", on: true }]);
  useTogether.setState({ presenter: "i" });
  rerender(<People />);
  await press("Hand over to Tam Kerr");
  expect(tell.mock.calls.at(-1)).toEqual([{ kind: "hand", to: "t" }]);
  await press("Stop presenting");
  expect(tell.mock.calls.at(-1)).toEqual([{ kind: "present", on: false }]);
});

test("one follows who presents, and no longer when one presents oneself", async () => {
  useTogether.setState({ presenter: "t" });
  const { rerender } = render(<People />);
  await press("Follow");
  expect(useTogether.getState().following).toBe(true);
  rerender(<People />);
  expect(screen.getByRole("button", { name: "Stop following" })).toBeTruthy();
  await press("Present to the others");
  expect(useTogether.getState().following).toBe(false);
  expect(tell.mock.calls.map(([said]) => said)).toEqual([
    { kind: "follows", on: true },
    { kind: "follows", on: false },
    { kind: "present", on: true },
  ]);
});

test("without a connection nothing can be pressed, and it says so", () => {
  useTogether.setState({ people: [] });
  render(<People />);
  expect(screen.getByText(/The connection to others is lost/)).toBeTruthy();
  expect(screen.queryByRole("button")).toBeNull();
});
