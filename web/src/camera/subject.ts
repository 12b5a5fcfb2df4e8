import type { Federation, Shapes } from "../api/client";
import { SHOWN } from "../open/expected";
import { find } from "../open/numbering";

/** What a view is to be fitted to. */
export type Subject =
  | { kind: "all" }
  | { kind: "visible" }
  | { kind: "components"; components: readonly number[] }
  | { kind: "room"; room: number }
  | { kind: "storey"; level: number };

type Wish = Pick<Shapes["FrameWish"], "components" | "room" | "level" | "among">;

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
    case "storey":
      return `fit: ${federation.levels[subject.level]?.name}`;
    case "components": {
      const first = find(federation, subject.components[0] ?? -1);
      const rest = subject.components.length - 1;
      return `fit: ${first?.model.labels[first.at] ?? "nothing"}${rest > 0 ? ` and ${rest} more` : ""}`;
    }
  }
}
