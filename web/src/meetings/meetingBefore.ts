import type { Shapes } from "../api/client";

type Meeting = Shapes["Meeting"];
type Wish = Shapes["MeetingRequest"];
type Entries = Shapes["Entries"];

const CALLED: Readonly<Record<string, string>> = {
  held_on: "date",
  present: "people",
  absent: "people",
  hours: "times",
  next: "next meeting",
  topics: "agenda",
  place: "agenda",
};

/** What a change to a meeting is called. */
export function changeName(meeting: Meeting, wish: Wish): string {
  if (wish.ended != null) return `${wish.ended ? "ended" : "reopened"} ${meeting.title}`;
  const fields = Object.keys(wish).map((field) => CALLED[field] ?? field);
  return `changed the ${[...new Set(fields)].join(" and ")} of ${meeting.title}`;
}

/** What takes a change of a list back, which was as given. */
const back = (was: readonly string[], { add, drop }: Entries): Entries => ({
  add: drop.filter((each) => was.includes(each)),
  drop: add.filter((each) => !was.includes(each)),
});

/** The changes that take another back, one after the other, made to a meeting that was as given. */
export function changesBack(before: Meeting, wish: Wish): Wish[] {
  const { title, held_on, from_time, to_time, next_on, next_time, present, absent, topics } = before;
  const out: Wish = {};
  if (wish.title != null) out.title = title;
  if (wish.held_on != null) out.held_on = held_on;
  if (wish.hours) out.hours = { from_time, to_time };
  if (wish.next) out.next = { on: next_on, at: next_time };
  if (wish.ended != null) out.ended = before.ended_at !== null;
  if (wish.topics) out.topics = back(topics, wish.topics);
  // Nobody is present and absent: who came onto one list left the other.
  const moved = [...(wish.present?.add ?? []), ...(wish.absent?.add ?? [])];
  if (wish.present || wish.absent) {
    const again = (list: readonly string[]) => moved.filter((name) => list.includes(name));
    const lists = { present: back(present, wish.present ?? NONE), absent: back(absent, wish.absent ?? NONE) };
    out.present = { ...lists.present, add: [...lists.present.add, ...again(present)] };
    out.absent = { ...lists.absent, add: [...lists.absent.add, ...again(absent)] };
  }
  // What was taken off the agenda comes back to where it stood.
  const placed = [...(wish.place ? [wish.place.topic] : []), ...(out.topics?.add ?? [])];
  const places = [...topics]
    .reverse()
    .filter((topic) => placed.includes(topic))
    .map((topic) => ({ place: { topic, before: topics[topics.indexOf(topic) + 1] ?? null } }));
  return Object.keys(out).length ? [out, ...places] : places;
}

const NONE: Entries = { add: [], drop: [] };
