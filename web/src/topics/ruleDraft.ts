import type { Shapes } from "../api/client";
import type { StatusWish } from "./StatusRow";

type Rules = Shapes["TopicRules"];

/** Rules that are being changed: statuses follow each other by keys, so that a name can be typed anew; words have commas between. */
export interface Draft {
  reference: Shapes["ReferenceRule"];
  statuses: readonly StatusWish[];
  kinds: string;
  priorities: string;
}

/** The rules as they are, to be changed. */
export function draftOf({ reference, statuses, kinds, priorities }: Rules): Draft {
  return {
    reference,
    statuses: statuses.map((each) => ({ ...each, key: each.name, was: each.name })),
    kinds: kinds.join(", "),
    priorities: priorities.join(", "),
  };
}

/** Words that were typed with commas between. */
export function listOf(typed: string): string[] {
  return typed
    .split(",")
    .map((each) => each.trim())
    .filter(Boolean);
}

/** What is asked of the server: what follows what by its name. */
export function wishOf({ reference, statuses, kinds, priorities }: Draft): Rules {
  const names = new Map(statuses.map(({ key, name }) => [key, name.trim()]));
  return {
    reference,
    statuses: statuses.map(({ name, next, end, was }) => ({
      name: name.trim(),
      next: next.flatMap((key) => names.get(key) ?? []),
      end,
      was,
    })),
    kinds: listOf(kinds),
    priorities: listOf(priorities),
  };
}
