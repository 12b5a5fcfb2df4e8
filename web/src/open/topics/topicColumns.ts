import { create } from "zustand";
import { persist } from "zustand/middleware";
import { spokenDay } from "../dates";
import type { Sort, Topic } from "./listed";

/** A column of the table of topics: what it says of each, and what it sorts by. */
export interface TopicColumn {
  key: string;
  name: string;
  sort?: Sort;
  of: (topic: Topic) => string;
}

/** What can be said of a topic beside its reference and title. */
export const COLUMNS: readonly TopicColumn[] = [
  { key: "status", name: "Status", sort: "status", of: ({ said }) => said.status ?? "" },
  { key: "assigned_to", name: "Assigned to", sort: "assigned_to", of: ({ said }) => said.assigned_to ?? "" },
  { key: "due", name: "Due date", sort: "due", of: ({ said }) => (said.due ? spokenDay(said.due) : "") },
  { key: "priority", name: "Priority", sort: "priority", of: ({ said }) => said.priority ?? "" },
  { key: "kind", name: "Kind", sort: "kind", of: ({ said }) => said.kind ?? "" },
  { key: "level", name: "Level", sort: "level", of: ({ level }) => level },
  { key: "room", name: "Room", sort: "room", of: ({ room }) => room },
  { key: "disciplines", name: "Disciplines", of: ({ disciplines }) => disciplines.join(", ") },
  { key: "labels", name: "Labels", of: ({ said }) => (said.labels ?? []).join(", ") },
  { key: "author", name: "Made by", sort: "author", of: ({ author }) => author },
  { key: "created", name: "Made on", of: ({ created_at }) => spokenDay(created_at) },
  { key: "changed", name: "Changed on", sort: "changed", of: ({ changed_at }) => spokenDay(changed_at) },
  { key: "description", name: "Description", of: ({ said }) => said.description ?? "" },
];

interface Chosen {
  columns: readonly string[];
  /** How high the table stands below the stage. */
  heightPx: number;
  set(part: Partial<Pick<Chosen, "columns" | "heightPx">>): void;
}

export const USUAL_HEIGHT_PX = 260;

/** The columns that this person wants to see, and how high the table is; kept by the browser. */
export const useTopicColumns = create<Chosen>()(
  persist(
    (set) => ({
      columns: ["status", "assigned_to", "due", "priority", "level", "room"],
      heightPx: USUAL_HEIGHT_PX,
      set: (part) => set(part),
    }),
    { name: "stairpath.topic-columns" },
  ),
);

/** The columns that are shown, in their order. */
export function shownColumns(columns: readonly string[]): TopicColumn[] {
  return COLUMNS.filter(({ key }) => columns.includes(key));
}
