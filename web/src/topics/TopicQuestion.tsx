import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { FormEvent } from "react";
import { spokenDay } from "../open/dates";
import { useDraft, useTyped } from "../open/drafts";
import type { Topic } from "../open/topics/listed";
import { useKnownPeople } from "../open/topics/useKnownPeople";
import { useTopicActs } from "../open/topics/useTopics";
import { DeskActs, DeskHeading } from "../parts/desk";
import { Only } from "../parts/Only";
import { Typing } from "../parts/Typing";
import { tone } from "../style/theme";
import { tiesOf } from "./ties";

/** What a designer is asked about a topic: as a mail still to be sent, as a page to print, and the answer. */
export function TopicQuestion({ topic }: { topic: Topic }) {
  const { question, id } = topic;
  const [asking, setAsking] = useDraft(`asking about ${id}`, false);
  const address = (form: string) => `/api/topics/${id}/question?form=${form}`;
  return (
    <Box data-testid="question">
      <DeskHeading>Question to the designer</DeskHeading>
      {question && (
        <Box sx={{ fontSize: 13, overflowWrap: "anywhere" }}>
          <Box sx={{ color: tone.soft, fontSize: 12 }}>
            {question.asked_by} asked {question.to || "the designer"}, {spokenDay(question.asked_on)}
          </Box>
          <Box sx={{ whiteSpace: "pre-wrap" }}>{question.text}</Box>
          {question.answer && (
            <Box sx={{ borderLeft: `3px solid ${tone.here}`, pl: 1, my: 0.5 }}>
              <Box sx={{ color: tone.soft, fontSize: 12 }}>
                {question.answered_by || "The designer"}
                {question.answered_on && `, ${spokenDay(question.answered_on)}`}
              </Box>
              <Box sx={{ whiteSpace: "pre-wrap" }}>{question.answer}</Box>
            </Box>
          )}
          <DeskActs>
            <Button variant="text" component="a" href={address("eml")} download>
              Mail draft
            </Button>
            <Button variant="text" component="a" href={address("pdf")} target="_blank" rel="noreferrer">
              Page to print
            </Button>
          </DeskActs>
          {!question.answer && (
            <Only to="change this topic" {...tiesOf(topic)}>
              <Answer key={question.text} topic={topic} />
            </Only>
          )}
        </Box>
      )}
      <Only to="change this topic" {...tiesOf(topic)}>
        {asking ? (
          <Ask topic={topic} close={() => setAsking(false)} />
        ) : (
          <Button variant="text" onClick={() => setAsking(true)}>
            {question ? "New question" : "Ask a question"}
          </Button>
        )}
      </Only>
    </Box>
  );
}

function Ask({ topic, close }: { topic: Topic; close: () => void }) {
  const { ask } = useTopicActs();
  const people = useKnownPeople();
  const usual = topic.question?.to ?? topic.said.assigned_to ?? "";
  const [to, setTo] = useDraft(`who is asked about ${topic.id}`, usual);
  const { typed: text, type, kept } = useTyped(`question of ${topic.id}`);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    // What was typed stays until it is kept.
    if (text.trim() && (await ask(topic.id, { to, text }))) {
      kept(text);
      close();
    }
  };
  return (
    <Box component="form" onSubmit={submit} sx={{ display: "grid", gap: 0.5 }}>
      <Typing about="Addressee" placeholder="Name or mail address" value={to} type={setTo} offered={people} />
      <Typing about="The question" placeholder="Question text" rows={3} value={text} type={type} />
      <DeskActs>
        <Button type="submit" variant="text" disabled={!text.trim()}>
          Ask
        </Button>
        <Button variant="text" onClick={close}>
          Cancel
        </Button>
      </DeskActs>
    </Box>
  );
}

function Answer({ topic }: { topic: Topic }) {
  const { answer } = useTopicActs();
  const [by, setBy] = useDraft(`who answers ${topic.id}`, topic.question?.to ?? "");
  const { typed: text, type, kept } = useTyped(`answer of ${topic.id} to ${topic.question?.text}`);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (text.trim() && (await answer(topic.id, { text, by, on: null }))) kept(text);
  };
  return (
    <Box component="form" onSubmit={submit} sx={{ display: "grid", gap: 0.5 }}>
      <Typing about="The answer" placeholder="Record the answer" rows={2} value={text} type={type} />
      <Typing about="Answered by" placeholder="Answered by" value={by} type={setBy} />
      <Button type="submit" variant="text" disabled={!text.trim()} sx={{ justifySelf: "start", ml: 0 }}>
        Save answer
      </Button>
    </Box>
  );
}
