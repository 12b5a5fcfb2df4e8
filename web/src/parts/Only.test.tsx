// @vitest-environment happy-dom
import { cleanup, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import type { Shapes } from "../api/client";
import { usePerson } from "../api/person";
import { Greyed, Only } from "./Only";

let mine: Shapes["Mine"] | undefined;
vi.mock("../open/useStage", () => ({ useOpen: () => ({ projectId: "p" }) }));
vi.mock("../api/queries", () => ({ useMine: () => ({ data: mine }) }));

beforeEach(() => {
  usePerson.setState({ name: "Tom Reed" });
  mine = {
    role: "comment",
    said: "look and comment",
    guest: false,
    may: ["write topics and comments"],
    may_made: ["write topics and comments", "change this topic", "delete or restore this topic"],
    may_given: ["write topics and comments", "change this topic"],
  };
});
afterEach(cleanup);

const button = <button type="button">Do it</button>;

test("what one may is there, and what one may not is not", () => {
  render(<Only to="write topics and comments">{button}</Only>);
  render(<Only to="change the models">{button}</Only>);
  expect(screen.getAllByRole("button")).toHaveLength(1);
});

test.each([
  ["delete or restore this topic", { made: "tom reed" }, 1],
  ["delete or restore this topic", { given: ["Tom Reed"] }, 0],
  ["change this topic", { made: "Ida Fenn", given: [null, "Tom Reed "] }, 1],
  ["change this topic", { made: "Ida Fenn" }, 0],
] as const)("to %s with %o it is there %i times", (to, ties, times) => {
  render(
    <Only to={to} {...ties}>
      {button}
    </Only>,
  );
  expect(screen.queryAllByRole("button")).toHaveLength(times);
});

test("what is greyed cannot be pressed, and says why", () => {
  render(<Greyed to="change the models">{button}</Greyed>);
  expect(screen.getByRole("group")).toHaveProperty("disabled", true);
  expect(screen.getByText(/You may look and comment here, but not change the models\./)).toBeTruthy();
});

test("until it is known what one may nothing can be pressed, and nothing is said", () => {
  mine = undefined;
  render(<Greyed to="change the models">{button}</Greyed>);
  expect(screen.getByRole("group")).toHaveProperty("disabled", true);
  expect(screen.queryByText(/You may/)).toBeNull();
});
