import { useMemo } from "react";
import { Vector3 } from "three";
import { answerOf, api, type ComponentRef } from "../api/client";
import { askedPoint } from "../open/asked";
import { find } from "../open/numbering";
import { inProject } from "../open/origin";
import { pickedNow, useSelection } from "../open/selection";
import { useSession, withErrorNotice } from "../open/session";
import { pointTool, useTools } from "../open/tools";
import { useOpen } from "../open/useStage";
import { Dimensions } from "../stage/layers/dimensions";
import type { Aim, Tool } from "../stage/tools/tool";
import { showLive } from "./live";
import { held } from "./locks";
import { addMeasure, beginMeasure, dropMeasure, useMeasuring, type What } from "./measuring";

type Side = Extract<What, { kind: "sides" }>["a"];

/** So far before a wall, or below a duct, that is clicked the floor is looked for. */
const BEFORE_M = 0.15;
const UP = new Vector3(0, 0, 1);
const AGAIN = "Esc to finish.";

/** The ways to take a measure. */
export function useMeasureTools() {
  const { federation, stage, projectId } = useOpen();
  return useMemo(() => {
    const { say } = useSession.getState();
    const origin = federation.origin_m;
    const there = (point: Vector3) => inProject(point, origin);
    const refOf = (component: number): ComponentRef => {
      const found = find(federation, component);
      return { model: found?.model.id ?? "", global_id: found?.globalId ?? "" };
    };
    const forget = () => {
      useMeasuring.setState({ aims: [] });
      stage()?.layer(Dimensions).showLive([]);
    };
    const desk = () => useSession.getState().open("measures");
    /** The exact point that was meant: what the stage draws is rounded. */
    const settled = async (aim: Aim): Promise<number[]> => {
      const point_m = there(aim.point);
      const answer = await answerOf(
        api.POST("/api/projects/{project_id}/measures/point", {
          params: { path: { project_id: projectId } },
          body: { of: refOf(aim.component), point_m },
        }),
      );
      return answer.point_m;
    };
    const clicked = (aims: readonly Aim[]) => aims.map((aim) => there(aim.point));
    const loose = (aim: Aim) => aim.kind === "face" || aim.kind === "crossing" || aim.kind === "gridline";
    /** The points of some clicks, the first exactly and each other one held as it was to the one before. */
    const keepPoints = (aims: readonly Aim[], held: readonly boolean[]) =>
      withErrorNotice(async () => {
        const id = beginMeasure(clicked(aims));
        const points_m = await Promise.all(
          aims.map((aim, k) => (loose(aim) && !held[k] ? settled(aim) : Promise.resolve(there(aim.point)))),
        ).catch((error) => {
          dropMeasure(id);
          throw error;
        });
        addMeasure({ kind: "points", points_m, main: "distance" }, id);
      });
    const take = (tool: Tool) => {
      desk();
      // What is put away for it keeps or forgets its own points.
      useTools.getState().take(tool);
    };
    /** Points clicked one after the other; each further one is held to the one before by the lock. */
    const points = (chain: boolean): Tool => {
      let wasHeld: boolean[] = [];
      const next = (aim: Aim): Aim => {
        const { aims, lock } = useMeasuring.getState();
        const before = aims.at(-1);
        if (!before) return aim;
        return { ...aim, point: held(before, aim.point, lock, federation.building_north_deg) };
      };
      const keep = () => {
        const { aims } = useMeasuring.getState();
        const those = wasHeld;
        wasHeld = [];
        forget();
        if (aims.length > 1) void keepPoints(aims, those);
      };
      const finish = () => {
        const begun = useMeasuring.getState().aims.length > 0;
        keep();
        return begun;
      };
      const tool = pointTool(
        {
          name: chain ? "measure chain" : "measure points",
          prompt: chain
            ? `Click each point, Enter to end the chain. ${AGAIN}`
            : `Click two points. The cursor snaps to corners, edges and centre lines. ${AGAIN}`,
          exact: true,
          bound: true,
          // What has two points by then is kept.
          cancel: keep,
        },
        (aim) => {
          const { aims, lock } = useMeasuring.getState();
          const point = next(aim);
          const before = aims.at(-1);
          if (before && point.point.distanceTo(before.point) < 1e-6) {
            say("That is the same point. Click another one.");
            return "more";
          }
          wasHeld[aims.length] = aims.length > 0 && lock !== "free";
          useMeasuring.setState({ aims: [...aims, point] });
          if (!chain && aims.length === 1) keep();
          return "more";
        },
      );
      return {
        ...tool,
        hover: (aim) => showLive(stage(), aim && next(aim)),
        ...(chain ? { finish } : {}),
      };
    };
    /** Clicks one after the other, until there are two. */
    const two = <T>(
      about: Pick<Tool, "name" | "prompt" | "exact" | "takes">,
      of: (aim: Aim) => T | null,
      use: (a: T, b: T, id: string) => void,
    ) => {
      let first: { value: T; aim: Aim } | null = null;
      take(
        pointTool({ ...about, bound: true, cancel: forget }, (aim) => {
          const value = of(aim);
          if (value === null) return "more";
          if (!first) {
            first = { value, aim };
            useMeasuring.setState({ aims: [aim] });
            return "more";
          }
          const { value: a, aim: before } = first;
          first = null;
          forget();
          use(a, value, beginMeasure(clicked([before, aim])));
          return "more";
        }),
      );
    };
    const side = (aim: Aim): Side =>
      aim.ends
        ? { kind: "edge", ends_m: aim.ends.map(there), point_m: there(aim.point) }
        : { kind: "face", of: refOf(aim.component), point_m: there(aim.point) };
    const between = (a: ComponentRef, b: ComponentRef, id?: string) =>
      addMeasure({ kind: "between", a, b, how: "nearest" }, id);
    return {
      /** From point to point; from that on which a menu was asked for. */
      points: () => {
        const point = askedPoint();
        const [component = -1] = pickedNow();
        take(points(false));
        if (point) useMeasuring.setState({ aims: [{ component, point, normal: UP, kind: "face" }] });
      },
      chain: () => take(points(true)),
      /** Between the two that are picked, else between two that are clicked. */
      between: () => {
        const { refs } = useSelection.getState();
        const [one, other] = refs;
        if (refs.length === 2 && one && other) {
          desk();
          return between(one, other);
        }
        two(
          { name: "measure between", prompt: `Click the two components. ${AGAIN}` },
          (aim) => {
            const ref = refOf(aim.component);
            const [before] = useMeasuring.getState().aims;
            if (before?.component === aim.component) {
              say("That is the same component. Click another one.");
              return null;
            }
            return ref;
          },
          between,
        );
      },
      /** Between two faces or edges. */
      sides: () =>
        two(
          {
            name: "measure sides",
            prompt: `Click two faces or edges to get their distance or angle. ${AGAIN}`,
            exact: true,
            takes: ["middle", "edge"],
          },
          side,
          (a, b, id) => addMeasure({ kind: "sides", a, b }, id),
        ),
      /** The room there is at a point of the floor. */
      clear: () =>
        take(
          pointTool(
            {
              name: "measure clear",
              bound: true,
              prompt: `Click the floor, or what is above it, to get clear height and width. ${AGAIN}`,
            },
            ({ point, normal }) => {
              // What does not look up is no floor: that before a wall or below a duct is meant.
              const at = normal.z > 0.5 ? point : point.clone().addScaledVector(normal, BEFORE_M);
              addMeasure({ kind: "clear", at_m: there(at) });
              return "more";
            },
          ),
        ),
      /** The area of a face that is clicked. */
      face: () =>
        take(
          pointTool(
            {
              name: "measure face",
              bound: true,
              prompt: `Click a face to get its area and perimeter. ${AGAIN}`,
            },
            (aim) => {
              addMeasure({
                kind: "face",
                face: { kind: "face", of: refOf(aim.component), point_m: there(aim.point) },
              });
              return "more";
            },
          ),
        ),
      room: (index: number) => {
        const room = federation.rooms[index];
        desk();
        if (room) addMeasure({ kind: "room", room: { model: room.model, global_id: room.global_id } });
      },
      /** The volume of what is picked. */
      volume: () => {
        desk();
        if (!pickedNow().length) return say("Nothing is selected. Click a component first.");
        addMeasure({ kind: "volume", of: [...useSelection.getState().refs] });
      },
    };
  }, [federation, stage, projectId]);
}
