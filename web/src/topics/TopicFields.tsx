import Box from "@mui/material/Box";
import type { Shapes } from "../api/client";
import { spokenDay } from "../open/dates";
import { entries } from "../open/entries";
import type { Topic } from "../open/topics/listed";
import { useKnownPeople } from "../open/topics/useKnownPeople";
import { useTopicActs, useTopicRules } from "../open/topics/useTopics";
import { DeskNote } from "../parts/desk";
import { KeptChoice } from "../parts/KeptChoice";
import { KeptText } from "../parts/KeptText";
import { NameField } from "../parts/NameField";
import { listOf } from "./ruleDraft";

const NONE = { statuses: [], kinds: [], priorities: [] };

/** What is said of a topic, to be changed: each field is kept when it is left. */
export function TopicFields({ topic }: { topic: Topic }) {
  const { said, overdue, reference } = topic;
  const { change } = useTopicActs();
  const people = useKnownPeople();
  const { statuses, kinds, priorities } = useTopicRules().data ?? NONE;
  const put = (wish: Shapes["TopicRequest"]) => change(topic.id, wish);
  const of = (field: string) => ({ field: `${field} of topic ${topic.id}`, by: topic.changed_by });
  const now = statuses.find(({ name }) => name === said.status);
  return (
    <Box>
      <NameField
        label="Title"
        {...of("title")}
        about={`Title of ${reference}`}
        value={said.title}
        keep={(title) => put({ title })}
      />
      <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", columnGap: 1 }}>
        <KeptChoice
          label="Status"
          {...of("status")}
          of={reference}
          value={said.status ?? ""}
          choices={now?.next ?? []}
          keep={(status) => put({ status })}
        />
        <KeptText
          label={overdue ? "Due date, overdue" : "Due date"}
          {...of("due")}
          of={reference}
          kind="date"
          value={said.due ?? ""}
          keep={(due) => put({ due: due || null })}
        />
        <KeptText
          label="Assigned to"
          {...of("assigned")}
          of={reference}
          value={said.assigned_to ?? ""}
          offered={people}
          keep={(assigned_to) => put({ assigned_to })}
        />
        <KeptText
          label="Priority"
          {...of("priority")}
          of={reference}
          value={said.priority ?? ""}
          offered={priorities}
          keep={(priority) => put({ priority })}
        />
        <KeptText
          label="Kind"
          {...of("kind")}
          of={reference}
          value={said.kind ?? ""}
          offered={kinds}
          keep={(kind) => put({ kind })}
        />
        <KeptText
          label="Labels, separated by commas"
          {...of("labels")}
          of={reference}
          value={(said.labels ?? []).join(", ")}
          keep={(typed, over) => put({ labels: entries(listOf(over), listOf(typed)) })}
        />
      </Box>
      <KeptText
        label="Description"
        {...of("description")}
        of={reference}
        rows={3}
        value={said.description ?? ""}
        keep={(description) => put({ description })}
      />
      <DeskNote>
        Created by {topic.author}, {spokenDay(topic.created_at)}
      </DeskNote>
    </Box>
  );
}
