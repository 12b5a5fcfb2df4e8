// @vitest-environment happy-dom
import { act, renderHook } from "@testing-library/react";
import { createElement, type ReactNode } from "react";
import { Vector3 } from "three";
import { afterEach, expect, test } from "vitest";
import { endProject } from "../perProject";
import { federationOf } from "../testFederation";
import { EyeNews, OpenContext } from "../useStage";
import { useWalkState } from "../walking/walkState";
import { shownLevel, useShownLevel, useStoreyFollows } from "./storey";

afterEach(endProject);

const two = federationOf({ one: [["a", 0, 0]] }, {}, []);
const federation = { ...two, bounds_m: [[-10, -10, -1] as number[], [10, 10, 8] as number[]] as never };

function follow() {
  const eye = new EyeNews();
  const open = { federation, eye, projectId: federation.id, stage: () => null } as never;
  const wrapper = ({ children }: { children: ReactNode }) =>
    createElement(OpenContext, { value: open }, children);
  const { result } = renderHook(
    () => {
      useStoreyFollows();
      return useShownLevel();
    },
    { wrapper },
  );
  const look = (x: number, z: number) => act(() => eye.tell({ eye: new Vector3(x, 0, z) } as never));
  return { result, look };
}

test("one storey is meant by the key plan and by what is done by key: that of the eye, else the one chosen", () => {
  const { result, look } = follow();
  look(0, 5);
  expect([result.current.level, result.current.inside, shownLevel(federation)]).toEqual([1, true, 1]);
  look(0, 1.6);
  expect(shownLevel(federation)).toBe(0);
  // From outside one chooses, and it stays while one moves about out there.
  look(60, 40);
  expect(result.current.inside).toBe(false);
  act(() => result.current.choose(1));
  look(50, 90);
  expect([result.current.level, shownLevel(federation)]).toEqual([1, 1]);
  // Coming to another storey, or going on foot, ends the choice.
  look(0, 5);
  look(0, 1.6);
  expect([result.current.chosen, shownLevel(federation)]).toEqual([null, 0]);
  act(() => result.current.choose(1));
  act(() => useWalkState.setState({ mode: "walk" }));
  expect(result.current.chosen).toBeNull();
  act(() => useWalkState.setState({ mode: "orbit" }));
});
