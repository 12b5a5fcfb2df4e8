// @vitest-environment happy-dom
import { cleanup, render, screen } from "@testing-library/react";
import { afterEach, expect, test } from "vitest";
import type { Task } from "../open/tasks/task";
import { TaskProgress } from "./TaskProgress";

afterEach(cleanup);

const TASK: Task = {
  id: "t",
  name: "Ducts against beams",
  author: "Ida Fenn",
  created_at: "2026-11-30T09:00:00Z",
  wish: { kind: "topics", preview: false, file: "", file_name: "", shift_m: [0, 0, 0] },
  status: "running",
  share: 0.4,
  message: "measuring",
  made: 0,
  made_for: null,
  made_at: null,
};

const bar = () => screen.queryByRole("progressbar");

test("a running task says how far it is and what it does", () => {
  render(<TaskProgress task={TASK} />);
  expect(bar()?.getAttribute("aria-valuenow")).toBe("40");
  expect(screen.getByText("measuring")).toBeTruthy();
});

test("one that waits has no share yet", () => {
  render(<TaskProgress task={{ ...TASK, status: "waiting", message: "left over from before" }} />);
  expect(bar()?.getAttribute("aria-valuenow")).toBeNull();
  expect(screen.getByText("waiting")).toBeTruthy();
  expect(screen.queryByText("left over from before")).toBeNull();
});

test.each(["failed", "stopped"] as const)("one that %s says why, without a bar", (status) => {
  render(<TaskProgress task={{ ...TASK, status, message: "Stopped by Ida Fenn." }} />);
  expect(bar()).toBeNull();
  expect(screen.getByText("Stopped by Ida Fenn.")).toBeTruthy();
});

test("a task that is done says nothing here", () => {
  const { container } = render(<TaskProgress task={{ ...TASK, status: "done" }} />);
  expect(container.textContent).toBe("");
});
