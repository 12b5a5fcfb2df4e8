import { answerOf, api, type Federation, type Shapes } from "../../api/client";
import type { Pose } from "../../stage/pose";
import { useViewState } from "../visibility/viewState";
import { NOTHING } from "./covered";
import { type Subject, wishOf } from "./subject";

const ROOMY = 0.2;
const TIGHT = 0.04;

/** Where the core stands to frame a subject from a direction, through a lens, in a frame of so much width to height. */
export function framed(
  projectId: string,
  federation: Federation,
  subject: Subject,
  look: Shapes["Look"],
  lens: Pick<Pose, "projection" | "angleDeg">,
  aspect: number,
  more: Partial<Pick<Shapes["FrameRequest"], "covered" | "open_at_m">> = {},
): Promise<Shapes["Framed"]> {
  const { states, cuts } = useViewState.getState();
  return answerOf(
    api.POST("/api/projects/{project_id}/frame", {
      params: { path: { project_id: projectId } },
      body: {
        ...look,
        aspect,
        projection: lens.projection,
        angle_deg: lens.angleDeg,
        covered: more.covered ?? [NOTHING],
        open_at_m: more.open_at_m ?? null,
        margin: subject.kind === "components" ? ROOMY : TIGHT,
        // What is cut away is not visible, and a room without its lid is seen from above.
        cuts: subject.kind === "visible" || subject.kind === "room" ? [...cuts] : [],
        ...wishOf(federation, states, subject),
      },
    }),
  );
}
