import { useMemo } from "react";
import { answerOf, api, type PoseShape, Refused, type Shapes } from "../../api/client";
import { fromShape, looking, type Pose, toShape } from "../../stage/pose";
import { useHabits } from "../habits";
import { pickedNow } from "../selection";
import { useSession, withErrorNotice } from "../session";
import { announce } from "../trail/cause";
import { useOpen } from "../useStage";
import { isBehind } from "./behind";
import { coveredNow } from "./covered";
import { framed } from "./framed";
import { type Subject, spokenSubject } from "./subject";

/** Say which models lie too far away to be fitted with the building. */
function sayElsewhere(found: Shapes["Framed"]): PoseShape {
  const far = found.elsewhere ?? [];
  if (far.length)
    useSession
      .getState()
      .say(
        `${far.join(", ")} ${far.length > 1 ? "lie" : "lies"} far from the building and ${far.length > 1 ? "are" : "is"} not in this view; the Models desk says how far.`,
      );
  return found;
}

/** How something is fitted: looking as now, through the present lens, and so named, unless it is said otherwise. */
interface Fit {
  look?: Shapes["Look"];
  lens?: Pick<Pose, "projection" | "angleDeg">;
  cause?: string;
  atOnce?: boolean;
}

/** Ways to look that the core decides: fits, lenses, projections, square-on and level views. */
export function useCameraCommands() {
  const { federation, stage, projectId } = useOpen();
  return useMemo(() => {
    /** Ask the core for a pose and go there; the Trail says what for. */
    const goTo = (cause: string, asked: Promise<PoseShape>, atOnce = false, inside = false) =>
      withErrorNotice(async () => {
        const shape = await asked;
        const view = stage();
        if (!view) return;
        announce(cause);
        const to = fromShape(shape);
        view.go(inside ? view.keptInside({ ...to, throughM: view.seen.throughM }) : to, atOnce);
      });
    const present = () => {
      const view = stage();
      if (!view) throw new Refused("The stage is still loading. Try again in a moment.");
      return { view, pose: view.pose, shape: toShape(view.pose), aspect: view.aspect };
    };
    const fitTo = (subject: Subject, { look, cause, atOnce = false, lens }: Fit = {}) => {
      const { view, pose, aspect } = present();
      const now = looking(pose);
      const wanted = look ?? { bearing_deg: now.bearingDeg, tilt_deg: now.tiltDeg };
      return goTo(
        cause ?? spokenSubject(federation, subject),
        framed(projectId, federation, subject, wanted, lens ?? pose, aspect, {
          covered: coveredNow(view.canvas, aspect),
        }).then(sayElsewhere),
        atOnce,
      ).then((went) => {
        const [only, ...more] = subject.kind === "components" ? subject.components : [];
        if (went && only !== undefined && !more.length && isBehind(view, only))
          useSession
            .getState()
            .say("It is hidden behind something. Shift+Y fades the others, Y isolates it.");
        return went;
      });
    };
    /** A parallel view square onto something, opened where it is. */
    const square = (subject: Subject, look: Shapes["Look"], openAt: number[], cause: string) => {
      const { view, pose, aspect } = present();
      const lens = { projection: "parallel", angleDeg: pose.angleDeg } as const;
      const more = { covered: coveredNow(view.canvas, aspect, true), open_at_m: openAt };
      return goTo(cause, framed(projectId, federation, subject, look, lens, aspect, more).then(sayElsewhere));
    };
    /** Look along a direction: at what is picked, else at what is visible, or only turn there. */
    const turnTo = (look: Shapes["Look"], cause: string) => {
      const { view } = present();
      const picked = pickedNow();
      if (useHabits.getState().fitOnTurn)
        return fitTo(picked.length ? { kind: "components", components: picked } : { kind: "visible" }, {
          look,
          cause,
        });
      announce(cause);
      view.turnTo(look.bearing_deg, look.tilt_deg);
      return Promise.resolve();
    };
    return {
      goTo,
      fitTo,
      turnTo,
      fitPicked: () => fitTo({ kind: "components", components: pickedNow() }),
      squareToFace: async (normal: { x: number; y: number; z: number }) => {
        const { pose } = present();
        const look = await answerOf(
          api.POST("/api/camera/face", {
            body: { normal: [normal.x, normal.y, normal.z], bearing_deg: looking(pose).bearingDeg },
          }),
        );
        await turnTo(look, "square onto a face");
      },
      squareToAxis: async (tag: string, ends: number[][]) => {
        const { pose } = present();
        const look = await answerOf(
          api.POST("/api/camera/axis", { body: { ends_m: ends, bearing_deg: looking(pose).bearingDeg } }),
        );
        const [[x = 0, y = 0] = []] = ends;
        await square({ kind: "visible" }, look, [x, y, 0], `square onto axis ${tag}`);
      },
      /** Straight down onto a storey, opened at a height. */
      squareToPlan: (level: number, cutM: number, bearingDeg: number) =>
        square(
          { kind: "storey", level },
          { bearing_deg: bearingDeg, tilt_deg: 90 },
          [0, 0, cutM],
          `plan ${federation.levels[level]?.name}`,
        ),
      lens: (text: string, keep: "eye" | "subject") => {
        const { shape, aspect } = present();
        return goTo(
          `lens: ${text}`,
          answerOf(api.POST("/api/camera/lens", { body: { pose: shape, aspect, text, keep } })),
          false,
          true,
        );
      },
      projection: (to: "perspective" | "parallel") => {
        const { view, shape, aspect } = present();
        const pivot_m = view.pivotPoint.toArray();
        return goTo(
          to,
          answerOf(api.POST("/api/camera/projection", { body: { pose: shape, aspect, to, pivot_m } })),
          true,
        );
      },
      level: () => {
        const { shape, aspect } = present();
        return goTo("made level", answerOf(api.POST("/api/camera/level", { body: { pose: shape, aspect } })));
      },
      scale: (scale: number) => {
        const { view, shape, aspect } = present();
        const body = {
          pose: shape,
          aspect,
          scale,
          height_px: view.canvas.clientHeight,
          pixel_mm: useHabits.getState().pixelMm,
        };
        return goTo(`1:${scale}`, answerOf(api.POST("/api/camera/scale", { body })), true);
      },
    };
  }, [federation, stage, projectId]);
}
