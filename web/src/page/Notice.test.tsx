// @vitest-environment happy-dom
import { act, cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { AWAY } from "../api/client";
import { useConnection } from "../api/connection";
import { useSession } from "../open/session";
import { useStageNews } from "../open/useStage";
import { Notice } from "./Notice";

beforeEach(() => {
  vi.useFakeTimers();
  useSession.getState().hush();
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

const shown = () => screen.queryByRole("status")?.textContent ?? null;
const say = (text: string, undo?: () => void) => act(() => useSession.getState().say(text, undo));
const pass = (ms: number) => act(() => vi.advanceTimersByTime(ms));

test("a notice goes by itself, and a newer one stays its whole time", () => {
  render(<Notice />);
  say("Saved.");
  pass(8000);
  say("Deleted.");
  pass(8000);
  expect(shown()).toContain("Deleted.");
  pass(1500);
  expect(shown()).toBeNull();
});

test("a notice outlasts the drawing of the building, however long that takes", () => {
  render(<Notice />);
  act(() => useStageNews.setState({ pending: 3 }));
  say("Opened with everything shown.");
  pass(60_000);
  expect(shown()).toContain("Opened with everything shown.");
  act(() => useStageNews.setState({ pending: 0 }));
  pass(8000);
  expect(shown()).toContain("Opened with everything shown.");
  pass(1500);
  expect(shown()).toBeNull();
});

test("what it offers is done once, and the notice goes with it", () => {
  const undo = vi.fn();
  render(<Notice />);
  say("Deleted Roof.", undo);
  fireEvent.click(screen.getByRole("button", { name: "Undo" }));
  expect(undo).toHaveBeenCalledTimes(1);
  expect(shown()).toBeNull();
  say("Saved.");
  expect(screen.queryByRole("button", { name: "Undo" })).toBeNull();
  fireEvent.click(screen.getByRole("button", { name: "Close this note" }));
  expect(shown()).toBeNull();
});

test("that the server is away is said no longer once it is back; anything else stays", () => {
  render(<Notice />);
  const back = () => act(() => useConnection.setState((s) => ({ back: s.back + 1 })));
  say(AWAY);
  back();
  expect(shown()).toBeNull();
  say("Deleted.");
  back();
  expect(shown()).toContain("Deleted.");
});

test("a choice that has no other place stays until it is made or closed", () => {
  render(<Notice />);
  act(() => useSession.getState().say("Lio changed the title while you typed.", vi.fn(), "Take theirs"));
  act(() => vi.advanceTimersByTime(60_000));
  expect(shown()).toContain("Take theirs");
  fireEvent.click(screen.getByRole("button", { name: "Close this note" }));
  expect(shown()).toBeNull();
});

test("what offers a way back stays longer, and as long as the pointer is over it", () => {
  render(<Notice />);
  say("Deleted Roof.", vi.fn());
  pass(19_000);
  fireEvent.pointerEnter(screen.getByRole("status"));
  pass(60_000);
  expect(shown()).toContain("Deleted Roof.");
  fireEvent.pointerLeave(screen.getByRole("status"));
  pass(20_500);
  expect(shown()).toBeNull();
});
