import type { Shapes } from "../../api/client";
import type { Topic } from "./listed";

type Wish = Shapes["TopicRequest"];
const LISTS = ["labels", "views", "related"] as const;
const CALLED: Record<string, string> = {
  assigned_to: "assignee",
  due: "due date",
  kind: "type",
  related: "related topics",
};

const listOf = (topic: Topic, field: (typeof LISTS)[number]): readonly string[] =>
  field === "labels" ? (topic.said.labels ?? []) : topic[field];
const isList = (field: string): field is (typeof LISTS)[number] => LISTS.some((each) => each === field);
const saidOf = (topic: Topic, field: string): unknown =>
  Object.entries(topic.said).find(([name]) => name === field)?.[1];

const fieldsOf = (wish: Wish) => Object.keys(wish).map((field) => CALLED[field] ?? field);

/** What a change to a topic is called. */
export function changeName(topic: Topic, wish: Wish): string {
  return `changed the ${fieldsOf(wish).join(" and ")} of ${topic.reference}`;
}

/** What a change to several topics is called. */
export function changeManyName(count: number, wish: Wish): string {
  return `changed the ${fieldsOf(wish).join(" and ")} of ${count} topics`;
}

/** The change that takes another back, made to a topic that was as given. */
export function inverse(before: Topic, wish: Wish): Wish {
  const out: Record<string, unknown> = {};
  for (const field of Object.keys(wish)) {
    if (!isList(field)) {
      out[field] = saidOf(before, field) ?? (field === "due" ? null : "");
      continue;
    }
    const [was, change] = [listOf(before, field), wish[field]];
    out[field] = {
      add: change?.drop.filter((each) => was.includes(each)) ?? [],
      drop: change?.add.filter((each) => !was.includes(each)) ?? [],
    };
  }
  return out;
}

/** The first field that somebody gave a third value since, neither what it was nor what was wished for. */
export function changedSince(before: Topic, wish: Wish, now: Topic): string | null {
  for (const [field, value] of Object.entries(wish)) {
    if (isList(field)) continue;
    const is = saidOf(now, field) ?? "";
    if (is !== (value ?? "") && is !== (saidOf(before, field) ?? "")) return CALLED[field] ?? field;
  }
  return null;
}
