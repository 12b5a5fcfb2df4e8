import { api, type Federation, type Shapes, taken } from "../api/client";
import { useSession } from "../project/session";
import type { Pose } from "../stage/pose";
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
): Promise<Shapes["Framed"]> {
  return taken(
    api.POST("/api/projects/{project_id}/frame", {
      params: { path: { project_id: projectId } },
      body: {
        ...look,
        aspect,
        projection: lens.projection,
        angle_deg: lens.angleDeg,
        margin: subject.kind === "components" ? ROOMY : TIGHT,
        ...wishOf(federation, useSession.getState().visibility, subject),
      },
    }),
  );
}
