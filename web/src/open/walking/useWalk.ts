import { useMemo } from "react";
import { Vector3 } from "three";
import { answerOf, api, type Shapes } from "../../api/client";
import { Figure } from "../../stage/layers/figure";
import { Flying } from "../../stage/movers/flying";
import { HeldKeys } from "../../stage/movers/heldKeys";
import { Heading } from "../../stage/movers/mover";
import { eyesOf, Walking } from "../../stage/movers/walking";
import { looking } from "../../stage/pose";
import type { Stage } from "../../stage/stage";
import { offerToTests } from "../../stage/testHooks";
import { numberOf } from "../numbering";
import { atProjectEnd } from "../perProject";
import { useSession, withErrorNotice } from "../session";
import { announce } from "../trail/cause";
import { useOpen } from "../useStage";
import { useGround } from "./useGround";
import { useWalkState } from "./walkState";

const INSIDE_DEG = 60;
/** The height of somebody who flies or looks on. */
const TALL_M = 1.8;
/** So far below the eye the floor may be that one stands on. */
const BELOW_EYE_M = 2.6;
const AROUND_M = 14;
const STOREY_KEYS = new Set(["PageUp", "PageDown"]);

/** Who moves the eye of the open project now, and the keys that are held for it. */
let present: { mover: Walking | Flying; keys: HeldKeys } | null = null;

/** Counts stops and goings-on, so that an answer about a stop that is over is not shown. */
let stops = 0;

function replace(next: typeof present): void {
  present?.keys.dispose();
  present = next;
}

// The walker ends with the project, its keys and the stop that is still asked for too.
atProjectEnd(() => {
  stops++;
  replace(null);
});

/** The walker of the page, for checks against the core; null while nobody walks. */
export function presentWalker(): Walking | null {
  return present?.mover instanceof Walking ? present.mover : null;
}

offerToTests("walker", presentWalker);

type Wish = Omit<Shapes["LandingRequest"], "body" | "at_m" | "towards_m" | "up"> &
  Partial<Pick<Shapes["LandingRequest"], "at_m" | "towards_m" | "up">>;

/** Going on foot, flying, and coming to stand. */
export function useWalk() {
  const { federation, stage, projectId } = useOpen();
  const groundFor = useGround();
  return useMemo(() => {
    const { say } = useSession.getState();
    const path = { params: { path: { project_id: projectId } } };

    /** Nobody is stopped any more, whatever answer is still on its way. */
    const goOn = () => {
      stops++;
      useWalkState.setState({ stop: null });
      stage()?.building.mark(-1);
    };

    const tellStop = (view: Stage, at: { feet: Vector3; towards: { x: number; y: number } } | null) => {
      goOn();
      if (!at) return;
      const one = stops;
      void withErrorNotice(async () => {
        const body = {
          body: useWalkState.getState().body,
          at_m: at.feet.toArray(),
          towards_m: [at.towards.x, at.towards.y, 0],
        };
        const stop = await answerOf(api.POST("/api/projects/{project_id}/walking/stop", { ...path, body }));
        if (one !== stops) return;
        useWalkState.setState({ stop });
        const by = stop.component;
        if (by) view.building.mark(numberOf(federation, by.model, by.global_id));
      });
    };

    /** Be on the floor at a point of the stage, looking along a bearing; or let the eye stay where it is. */
    const onFoot = async (feet: Vector3, bearingDeg: number | null, arriving: boolean) => {
      const view = stage();
      if (!view) return;
      const { body, paces, behind } = useWalkState.getState();
      const { ground, who } = await groundFor(body);
      const own = ground.own(feet);
      await ground.load(own.x, own.y, AROUND_M);
      const floor = ground.under(own.clone().setZ(own.z + 0.1), 0.4, 0.2);
      if (!floor) {
        say(`There is no floor for ${body} there. Choose another place or a smaller body.`);
        return;
      }
      const pose = view.pose;
      pose.projection = "perspective";
      if (pose.angleDeg < INSIDE_DEG - 10) pose.angleDeg = INSIDE_DEG;
      if (arriving) {
        const eye = feet.clone().setZ(feet.z + eyesOf(who.height_m));
        const now = looking(pose);
        new Heading(bearingDeg ?? now.bearingDeg, bearingDeg === null ? now.tiltDeg : 0).put(pose, eye);
      }
      view.navigation.set(pose, "went");
      const keys = new HeldKeys(() => view.main.wake(), STOREY_KEYS);
      const speedMs = paces[body] ?? who.speed_m_s;
      const mover = new Walking(
        ground,
        floor,
        own,
        pose,
        who.height_m,
        keys,
        {
          speed: (speed) =>
            useWalkState.setState((now) => ({ speedMs: speed, paces: { ...now.paces, [body]: speed } })),
          stopped: (at) => tellStop(view, at),
          figure: (at) => view.layer(Figure).show(at),
          clear: (from, to) => view.building.clear(from, to),
        },
        speedMs,
      );
      mover.behind = behind;
      view.layer(Figure).shape(who.height_m, who.radius_m);
      replace({ mover, keys });
      view.setMover(mover, "walked", arriving);
      goOn();
      useWalkState.setState({ mode: "walk", speedMs });
    };

    const land = (wish: Wish, cause: string) =>
      withErrorNotice(async () => {
        const { body } = useWalkState.getState();
        const full = { at_m: [0, 0, 0], towards_m: [0, 1, 0], up: 0, ...wish, body };
        const at = await answerOf(
          api.POST("/api/projects/{project_id}/walking/landing", { ...path, body: full }),
        );
        announce(cause);
        await onFoot(new Vector3().fromArray(at.at_m), at.bearing_deg ?? null, true);
      });

    /** Nobody walks or flies any more. */
    const orbit = () => {
      replace(null);
      stage()?.setMover(null);
      stage()?.layer(Figure).show(null);
      goOn();
      useWalkState.setState({ mode: "orbit" });
    };

    const walk = () =>
      withErrorNotice(async () => {
        const view = stage();
        if (!view) return;
        const { ground } = await groundFor(useWalkState.getState().body);
        const eye = ground.own(view.pose.eye);
        await ground.load(eye.x, eye.y, AROUND_M);
        const floor = ground.under(eye, BELOW_EYE_M, 0);
        if (floor) {
          await onFoot(ground.stage(eye.setZ(ground.height(floor))), null, false);
          return;
        }
        // From afar one comes to stand where one looks.
        const { width, height } = view.canvas.getBoundingClientRect();
        const hit = view.main.hitAtPixel(width / 2, height / 2);
        if (!hit) {
          say("There is no floor below the eye. Look at the building, or find a room.");
          return;
        }
        await land({ kind: "floor", at_m: hit.point.toArray() }, "on foot");
      });

    const fly = () => {
      const view = stage();
      if (!view) return;
      const pose = view.pose;
      pose.projection = "perspective";
      view.navigation.set(pose, "went");
      const keys = new HeldKeys(() => view.main.wake());
      const mover = new Flying(pose, keys, {
        speed: (speed) => useWalkState.setState({ speedMs: speed }),
        clear: (from, to) => view.building.clear(from, to),
        stopped: () => say("Stopped at a surface. Switch stops off to go through."),
      });
      mover.stops = useWalkState.getState().flyStops;
      replace({ mover, keys });
      view.setMover(mover, "flew");
      goOn();
      useWalkState.setState({ mode: "fly" });
    };

    const storey = (up: 1 | -1) => {
      const feet = presentWalker()?.feet ?? stage()?.pose.eye;
      if (feet)
        void land({ kind: "storey", at_m: feet.toArray(), up }, up > 0 ? "a storey up" : "a storey down");
    };

    /** Go on behind a picked point of a wall, the way one looks. */
    const through = (point: Vector3) => {
      const pose = stage()?.pose;
      const feet = presentWalker()?.feet.z ?? (pose ? pose.eye.z - eyesOf(TALL_M) : point.z);
      const towards = pose ? point.clone().sub(pose.eye) : new Vector3(0, 1, 0);
      towards.z = 0;
      return land(
        { kind: "behind", at_m: [point.x, point.y, feet], towards_m: towards.toArray() },
        "through a wall",
      );
    };

    const mode = () => useWalkState.getState().mode;
    return {
      /** Go on foot, or stop walking. */
      toggleWalk: () => (mode() === "walk" ? orbit() : void walk()),
      /** Fly, or stop flying. */
      toggleFly: () => (mode() === "fly" ? orbit() : fly()),
      through,
      orbit,
      land,
      /** Come to stand at a point of a floor. */
      jump: (point: Vector3) => land({ kind: "floor", at_m: point.toArray() }, "jump"),
      storey,
      setBody: (body: string) =>
        withErrorNotice(async () => {
          goOn();
          useWalkState.setState({ body });
          const feet = presentWalker()?.feet;
          // Other eyes are elsewhere at once.
          if (!feet) return;
          announce(`as ${body}`);
          await onFoot(feet, null, true);
        }),
      showBehind: (behind: boolean) => {
        useWalkState.setState({ behind });
        const walker = presentWalker();
        if (!walker) return;
        walker.behind = behind;
        walker.refresh();
        stage()?.ask();
      },
      setFlyStops: (flyStops: boolean) => {
        useWalkState.setState({ flyStops });
        if (present?.mover instanceof Flying) present.mover.stops = flyStops;
      },
    };
  }, [federation, stage, projectId, groundFor]);
}
