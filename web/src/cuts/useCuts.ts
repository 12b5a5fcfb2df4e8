import { useMemo } from "react";
import { Vector3 } from "three";
import { answerOf, api, type Shapes } from "../api/client";
import { STOREY_CUT_M } from "../api/constants";
import { addCut } from "../open/cuts/cutting";
import { type CutShape, spokenHeight, toMilli } from "../open/cuts/shape";
import { inProject } from "../open/origin";
import { pickedNow, useSelection } from "../open/selection";
import { useSession, withErrorNotice } from "../open/session";
import { pointTool, useTools } from "../open/tools";
import { useOpen } from "../open/useStage";
import { forward } from "../stage/pose";
import { boxBetween, openedTowards } from "./boxes";

const VOID_FROM_M = 2.4;
const MARGIN_M = 0.3;

type Axis = Shapes["PlanAxis"];
type BoxWish = Partial<Shapes["BoxRequest"]>;

/** The ways to make a cut. */
export function useCuts() {
  const { federation, stage, projectId } = useOpen();
  return useMemo(() => {
    const { say } = useSession.getState();
    const there = (point: Vector3) => inProject(point, federation.origin_m);
    const level = (height_m: number) =>
      addCut({
        name: spokenHeight(federation, height_m),
        shape: { kind: "plane", point_m: [0, 0, toMilli(height_m)], normal: [0, 0, 1] },
      });
    const elevation = (at: number) => federation.levels[at]?.elevation_m ?? 0;
    const plane = (name: string, point: Vector3, normal: Vector3) =>
      addCut({ name, shape: { kind: "plane", point_m: there(point), normal: normal.toArray() } });
    const box = (name: string, wish: BoxWish, change: (shape: CutShape) => CutShape = (shape) => shape) =>
      withErrorNotice(async () => {
        const path = { project_id: projectId };
        const body = { margin_m: MARGIN_M, ...wish };
        const shape = await answerOf(
          api.POST("/api/projects/{project_id}/cuts/box", { params: { path }, body }),
        );
        addCut({ name, shape: change({ ...shape, kind: "box" }) });
      });
    return {
      /** At a height above a storey. */
      storey: (at: number, over_m = STOREY_CUT_M) => level(elevation(at) + over_m),
      /** Between a storey's usual ceilings and the floor above. */
      ceilingVoid: (at: number) => {
        const top = federation.levels[at + 1]?.elevation_m ?? elevation(at) + 4;
        const thick_m = Math.max(0.1, toMilli(top - elevation(at) - VOID_FROM_M));
        addCut({
          name: `Ceiling void of ${federation.levels[at]?.name ?? ""}`,
          shape: { kind: "band", point_m: [0, 0, top], normal: [0, 0, 1], thick_m },
        });
      },
      /** Along a grid line, seen from the side that one is on, or looking along a bearing. */
      grid: (axis: Axis, lookingDeg: number | null = null) =>
        withErrorNotice(async () => {
          const view = stage();
          if (!view) return;
          const { x, y } = forward(view.pose);
          const bearing_deg = lookingDeg ?? (Math.atan2(x, y) * 180) / Math.PI;
          const look = await answerOf(
            api.POST("/api/camera/axis", { body: { ends_m: axis.ends, bearing_deg } }),
          );
          const turn = (look.bearing_deg * Math.PI) / 180;
          const [ax = 0, ay = 0] = axis.ends[0] ?? [];
          plane(`Grid ${axis.tag}`, new Vector3(ax, ay, 0), new Vector3(-Math.sin(turn), -Math.cos(turn), 0));
        }),
      /** Square to the present view, through what is in its middle. */
      facing: () => {
        const view = stage();
        if (view) plane("Square to the view", view.main.middle(), forward(view.pose).negate());
      },
      /** Through a face that is clicked. */
      face: () =>
        useTools.getState().take(
          pointTool(
            { name: "cut face", bound: true, prompt: "Click the face to cut along." },
            ({ point, normal }) => {
              plane("Along a face", point, normal);
              return "done";
            },
          ),
        ),
      /** Through three points that are clicked. */
      points: () => {
        const picked: Vector3[] = [];
        const prompt = "Click three points on the cut. The cursor snaps to corners and edges.";
        useTools.getState().take(
          pointTool({ name: "cut points", bound: true, prompt, exact: true }, ({ point }) => {
            picked.push(point);
            if (picked.length < 3) {
              say(`${picked.length} of 3 points.`);
              return "more";
            }
            const [a, b, c] = picked as [Vector3, Vector3, Vector3];
            const normal = b.clone().sub(a).cross(c.clone().sub(a));
            if (normal.length() < 1e-4) {
              picked.pop();
              say("The three points are on one line. Click a point off that line.");
              return "more";
            }
            const view = stage();
            if (view && normal.dot(forward(view.pose)) > 0) normal.negate();
            plane("Through three points", a, normal.normalize());
            return "done";
          }),
        );
      },
      /** A box around what is picked. */
      aroundPicked: () => {
        const numbers = pickedNow();
        if (!numbers.length) return void say("Nothing is selected. Click a component first.");
        const components = [...useSelection.getState().refs];
        void box(
          numbers.length === 1 ? "Box around one component" : `Box around ${numbers.length} components`,
          {
            components,
          },
        );
      },
      aroundRoom: (room: number) => {
        const { number = "", name = "" } = federation.rooms[room] ?? {};
        void box(`Box around ${`${number} ${name}`.trim()}`, { room });
      },
      /** A room without what stands between it and the eye: its wall, or the floor above it. */
      openRoom: (room: number) => {
        const view = stage();
        const { number = "", name = "" } = federation.rooms[room] ?? {};
        void box(`Into ${`${number} ${name}`.trim()}`, { room }, (shape) =>
          view ? openedTowards(shape, forward(view.pose).toArray()) : shape,
        );
      },
      /** A box between two corners that are clicked, as high as the storey. */
      drawn: () => {
        let first: Vector3 | null = null;
        const prompt = "Click two opposite corners on plan. The box is as high as the storey.";
        useTools.getState().take(
          pointTool({ name: "cut box", bound: true, prompt, exact: true }, ({ point }) => {
            if (!first) {
              first = point;
              say("Click the opposite corner.");
              return "more";
            }
            const shape = boxBetween(federation, there(first), there(point));
            if (!shape) {
              say("The corners are in line. Click one further to the side.");
              return "more";
            }
            addCut({ name: "Box as drawn", shape });
            return "done";
          }),
        );
      },
      aroundStorey: (at: number) =>
        void box(`Box around ${federation.levels[at]?.name ?? ""}`, { level: at }),
    };
  }, [federation, stage, projectId]);
}
