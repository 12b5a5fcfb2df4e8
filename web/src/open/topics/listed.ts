import type { Shapes } from "../../api/client";
import { IMPORT } from "../../api/constants";
import { spokenDay } from "../dates";

export type Topic = Shapes["Topic"];
export type Which = "open" | "mine" | "new" | "late" | "all";

export const WHICH: readonly (readonly [Which, string])[] = [
  ["open", "not settled"],
  ["mine", "assigned to me"],
  ["new", "new to me"],
  ["late", "overdue"],
  ["all", "all"],
];

/** What a topic is found by: its reference with and without what is between its parts, and what is said of it. */
function words({ reference, said, level, room, disciplines }: Topic): string {
  const { title, description, kind, status, priority, assigned_to, labels } = said;
  const bare = reference.replace(/[^A-Za-z0-9]+/g, " ");
  const where = [level, room, ...disciplines];
  return [
    reference,
    bare,
    title,
    description,
    kind,
    status,
    priority,
    assigned_to,
    ...(labels ?? []),
    ...where,
  ]
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

const FIELDS: Readonly<Record<string, string>> = { assigned_to: "assigned to", due: "due date" };

/** A change as one says it: `status: open → in hand`. */
export function spokenChange({ field, old, new: now }: Shapes["TopicChange"]): string {
  if (field === IMPORT) return String(now);
  const said = (value: Shapes["TopicChange"]["old"]) => {
    const text = (Array.isArray(value) ? value.join(", ") : value) || "nothing";
    return field === "due" && value ? spokenDay(text) : text;
  };
  return `${FIELDS[field] ?? field}: ${said(old)} → ${said(now)}`;
}

export const SORTS = [
  ["number", "by reference"],
  ["due", "by due date"],
  ["changed", "changed last"],
  ["title", "by title"],
  ["status", "by status"],
  ["assigned_to", "by assignee"],
  ["priority", "by priority"],
  ["kind", "by kind"],
  ["level", "by level"],
  ["room", "by room"],
  ["author", "by who made it"],
] as const;
export type Sort = (typeof SORTS)[number][0];

export const GROUPS = [
  ["none", "not grouped"],
  ["status", "by status"],
  ["assigned_to", "by assignee"],
  ["discipline", "by discipline"],
  ["level", "by level"],
  ["room", "by room"],
  ["kind", "by kind"],
  ["priority", "by priority"],
  ["labels", "by label"],
] as const;
export type Group = (typeof GROUPS)[number][0];

export type ListRow =
  | { kind: "group"; key: string; name: string; count: number }
  | { kind: "topic"; key: string; topic: Topic };

/** What a topic is sorted by; those without stand last. */
function keyOf(topic: Topic, by: Sort): string {
  if (by === "number") return "";
  if (by === "changed") return topic.changed_at;
  if (by === "level" || by === "room" || by === "author") return topic[by];
  return topic.said[by] ?? "";
}

/** `priorities` are the project's, the most pressing first; others follow them. What says nothing stands last either way. */
function ordered(
  topics: readonly Topic[],
  by: Sort,
  priorities: readonly string[],
  falling: boolean,
): Topic[] {
  if (by === "number") return falling ? [...topics].reverse() : [...topics];
  const pressing = new Map(priorities.map((name, k) => [name.toLowerCase(), k]));
  const place = ({ said }: Topic) => pressing.get((said.priority ?? "").toLowerCase()) ?? priorities.length;
  const way = (by === "changed") !== falling ? -1 : 1;
  return [...topics].sort((a, b) => {
    if (by === "priority" && a.said.priority && b.said.priority && place(a) !== place(b))
      return (falling ? -1 : 1) * (place(a) - place(b));
    const [one, other] = [keyOf(a, by), keyOf(b, by)];
    if (!one || !other) return Number(!one) - Number(!other);
    return way * one.localeCompare(other, "en", { numeric: true });
  });
}

const NONE: Partial<Record<Group, string>> = { assigned_to: "nobody", labels: "no label" };

/** The groups that a topic stands in. */
function groupsOf(topic: Topic, by: Group): readonly string[] {
  if (by === "labels") return topic.said.labels ?? [];
  if (by === "discipline") return topic.disciplines;
  const one = by === "level" || by === "room" ? topic[by] : by === "none" ? "" : topic.said[by];
  return one ? [one] : [];
}

/** The rows of a list: topics in their order, below the names of the groups that they stand in. */
export function rowsOf(
  topics: readonly Topic[],
  sort: Sort,
  group: Group,
  priorities: readonly string[] = [],
  falling = false,
): ListRow[] {
  const all = ordered(topics, sort, priorities, falling);
  if (group === "none") return all.map((topic) => ({ kind: "topic", key: topic.id, topic }));
  const groups = new Map<string, Topic[]>();
  for (const topic of all) {
    const names = groupsOf(topic, group);
    for (const name of names.length ? names : [""]) groups.set(name, [...(groups.get(name) ?? []), topic]);
  }
  return [...groups]
    .sort(([a], [b]) => Number(!a) - Number(!b) || a.localeCompare(b, "en", { numeric: true }))
    .flatMap(([name, those]) => [
      {
        kind: "group" as const,
        key: `g/${name}`,
        name: name || (NONE[group] ?? "none"),
        count: those.length,
      },
      ...those.map((topic) => ({ kind: "topic" as const, key: `${name}/${topic.id}`, topic })),
    ]);
}

/** What a view that is kept with a topic is called. */
export function viewNameOf({ reference, said }: Topic): string {
  return `${reference} ${said.title}`.slice(0, 120);
}
