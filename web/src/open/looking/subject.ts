import { Box3, Vector3 } from "three";
import type { Federation, Shapes } from "../../api/client";
import { find } from "../numbering";
import { SHOWN } from "../visibility/expected";

/** What is measured is seen with so much around its middle. */
const AROUND_M = 1.2;

/** What a view is to be fitted to. */
export type Subject =
  | { kind: "all" }
  | { kind: "visible" }
  | { kind: "components"; components: readonly number[] }
  | { kind: "room"; room: number }
  | { kind: "storey"; level: number }
  /** Points about the origin; so near to each other they are seen with what is around them. */
  | { kind: "points"; points: readonly Vector3[]; cause: string };

type Wish = Pick<Shapes["FrameRequest"], "components" | "room" | "level" | "among" | "points">;

/** A bit for each component by its dense number, as base64, the lowest bit first. */
export function bitSet(members: ArrayLike<number | boolean>): string {
  const bytes = new Uint8Array(Math.ceil(members.length / 8));
  Array.from(members).forEach((member, i) => {
    if (member) bytes[i >> 3] = (bytes[i >> 3] ?? 0) | (1 << (i & 7));
  });
  let text = "";
  for (const byte of bytes) text += String.fromCharCode(byte);
  return btoa(text);
}

/** Points with what is around them, so that what is close together is not all that is seen. */
function roomy(points: readonly Vector3[]): Vector3[] {
  const box = new Box3().setFromPoints([...points]);
  const half = box.getSize(new Vector3()).multiplyScalar(0.5);
  box.expandByVector(new Vector3(AROUND_M, AROUND_M, AROUND_M).sub(half).max(new Vector3()));
  return [box.min, box.max].flatMap(({ x, y, z }) => [
    new Vector3(x, y, z),
    new Vector3(box.min.x + box.max.x - x, y, z),
    new Vector3(x, box.min.y + box.max.y - y, z),
    new Vector3(x, y, box.min.z + box.max.z - z),
  ]);
}

/** The subject in the server's terms. */
export function wishOf(federation: Federation, states: Uint8Array, subject: Subject): Wish {
  switch (subject.kind) {
    case "all":
      return {};
    case "visible":
      return { among: bitSet(states.map((state) => (state === SHOWN ? 1 : 0))) };
    case "room":
      return { room: subject.room };
    case "storey":
      return { level: subject.level };
    case "points":
      return { points: roomy(subject.points).map((point) => point.toArray()) };
    case "components":
      return {
        components: subject.components.flatMap((component) => {
          const found = find(federation, component);
          return found ? [{ model: found.model.id, global_id: found.globalId }] : [];
        }),
      };
  }
}

/** What the Trail says of a fit. */
export function spokenSubject(federation: Federation, subject: Subject): string {
  switch (subject.kind) {
    case "all":
      return "fit: all";
    case "visible":
      return "fit: visible";
    case "room": {
      const room = federation.rooms[subject.room];
      return `fit: ${room?.number} ${room?.name}`;
    }
    case "points":
      return subject.cause;
    case "storey":
      return `fit: ${federation.levels[subject.level]?.name}`;
    case "components": {
      const first = find(federation, subject.components[0] ?? -1);
      const rest = subject.components.length - 1;
      return `fit: ${first?.model.labels[first.at] ?? "nothing"}${rest > 0 ? ` and ${rest} more` : ""}`;
    }
  }
}
