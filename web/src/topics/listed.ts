import type { Shapes } from "../api/client";
import type { Which } from "./topicsState";

export type Topic = Shapes["Topic"];

export const WHICH: readonly (readonly [Which, string])[] = [
  ["open", "not settled"],
  ["mine", "wait for me"],
  ["new", "new to me"],
  ["late", "overdue"],
  ["all", "all"],
];

/** What a topic is found by: its reference with and without what is between its parts, and what is said of it. */
function words({ reference, said }: Topic): string {
  const { title, description, kind, status, assigned_to, labels } = said;
  const bare = reference.replace(/[^A-Za-z0-9]+/g, " ");
  return [reference, bare, title, description, kind, status, assigned_to, ...(labels ?? [])]
    .join("\n")
    .toLowerCase();
}

/** The topics that are meant, as they come; `ends` are the statuses at which nothing is waited for. */
export function listed(
  topics: readonly Topic[],
  which: Which,
  typed: string,
  me: string,
  ends: ReadonlySet<string>,
): Topic[] {
  const all = typed.toLowerCase().split(/\s+/).filter(Boolean);
  return topics.filter((topic) => {
    const settled = ends.has(topic.said.status ?? "");
    const meant =
      which === "all" ||
      (which === "open" && !settled) ||
      (which === "mine" && !settled && topic.said.assigned_to?.toLowerCase() === me.toLowerCase()) ||
      (which === "new" && topic.new) ||
      (which === "late" && topic.overdue);
    const text = words(topic);
    return meant && all.every((word) => text.includes(word));
  });
}

/** A date as it is written in lists. */
export function spokenDate(iso: string): string {
  return new Date(`${iso}T12:00:00`).toLocaleDateString("en-GB", { day: "numeric", month: "short" });
}

const FIELDS: Readonly<Record<string, string>> = { assigned_to: "who has it", due: "due date" };

/** A change as one says it: `status: open → in hand`. */
export function spokenChange({ field, old, new: now }: Shapes["TopicChange"]): string {
  const said = (value: Shapes["TopicChange"]["old"]) =>
    (Array.isArray(value) ? value.join(", ") : (value ?? "")) || "nothing";
  return `${FIELDS[field] ?? field}: ${said(old)} → ${said(now)}`;
}
