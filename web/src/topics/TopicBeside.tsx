import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import OutlinedInput from "@mui/material/OutlinedInput";
import { type FormEvent, useRef } from "react";
import type { Shapes } from "../api/client";
import { useTyped } from "../open/drafts";
import { adding, dropping } from "../open/entries";
import { useSession } from "../open/session";
import { byReference } from "../open/topics/byReference";
import type { Topic } from "../open/topics/listed";
import { useTopicsShown } from "../open/topics/topicsState";
import { useTopicActs, useTopics } from "../open/topics/useTopics";
import { DeskHeading, DeskNote } from "../parts/desk";
import { Only } from "../parts/Only";
import { tone } from "../style/theme";
import { tiesOf } from "./ties";
import { useTopicFiles } from "./useTopicFiles";
import { webAddress } from "./webAddress";

const ROW = {
  display: "flex",
  gap: 1,
  alignItems: "baseline",
  fontSize: 13,
  overflowWrap: "anywhere",
} as const;

/** A document that is elsewhere, with its host; what is no page of the web is told and not opened. */
function Elsewhere({ address, called }: { address: string; called: string }) {
  const page = webAddress(address);
  if (!page)
    return (
      <Box sx={{ color: tone.soft, flex: 1 }}>{called === address ? address : `${called} (${address})`}</Box>
    );
  return (
    <Box sx={{ flex: 1 }}>
      <Box component="a" href={page.href} target="_blank" rel="noreferrer" sx={{ color: tone.ink }}>
        {called}
      </Box>{" "}
      <Box component="span" sx={{ color: tone.soft }}>
        {page.host}
      </Box>
    </Box>
  );
}

/** Files that are attached to a topic. */
export function TopicFiles({ topic, files }: { topic: Topic; files: readonly Shapes["TopicFile"][] }) {
  const { attach, remove } = useTopicFiles();
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <DeskHeading>Files</DeskHeading>
      {files.map((file) => (
        <Box key={file.id} data-testid="topic-file" sx={ROW}>
          {file.url ? (
            <Elsewhere address={file.url} called={file.description || file.name} />
          ) : (
            <Box
              component="a"
              href={`/api/topic-files/${file.id}`}
              download={file.name}
              sx={{ color: tone.ink, flex: 1 }}
            >
              {file.description || file.name}
            </Box>
          )}
          <Only to="take this file away" made={file.author}>
            <Button
              variant="text"
              aria-label={`Remove ${file.name}`}
              onClick={() => void remove(file.id, file.name)}
            >
              Remove
            </Button>
          </Only>
        </Box>
      ))}
      {topic.links.map((link) => (
        <Box key={link} sx={ROW}>
          <Elsewhere address={link} called={link} />
        </Box>
      ))}
      <input
        ref={input}
        type="file"
        multiple
        hidden
        aria-label="Files to attach"
        onChange={(event) => {
          for (const file of event.target.files ?? []) void attach(topic.id, file);
          event.target.value = "";
        }}
      />
      <Only to="write topics and comments">
        <Button variant="text" sx={{ ml: 0 }} onClick={() => input.current?.click()}>
          Attach a file
        </Button>
      </Only>
    </>
  );
}

/** Topics that have to do with this one: typed by their reference, opened by a click. */
export function RelatedTopics({ topic }: { topic: Topic }) {
  const { data: all = [] } = useTopics();
  const { change } = useTopicActs();
  const put = useTopicsShown((s) => s.put);
  const { typed, type, kept } = useTyped(`related to ${topic.id}`);
  const add = async (event: FormEvent) => {
    event.preventDefault();
    if (!typed.trim()) return;
    const found = byReference(all, typed);
    if (!found || found.id === topic.id) {
      useSession.getState().say(`There is no other topic ${typed.trim()}. Type its reference.`);
      return;
    }
    if (await change(topic.id, { related: adding(found.guid) })) kept(typed);
  };
  return (
    <>
      <DeskHeading>Related topics</DeskHeading>
      {topic.related.map((guid) => {
        const other = all.find((each) => each.guid === guid);
        return (
          <Box key={guid} data-testid="related" sx={ROW}>
            <Box sx={{ flex: 1 }}>
              {other ? (
                <Button variant="text" sx={{ ml: 0 }} onClick={() => put({ opened: other.id })}>
                  {other.reference} {other.said.title}
                </Button>
              ) : (
                <DeskNote>A topic that is not in this project</DeskNote>
              )}
            </Box>
            <Only to="change this topic" {...tiesOf(topic)}>
              <Button
                variant="text"
                aria-label={`Remove ${other?.reference ?? "it"}`}
                onClick={() => void change(topic.id, { related: dropping(guid) })}
              >
                Remove
              </Button>
            </Only>
          </Box>
        );
      })}
      <Only to="change this topic" {...tiesOf(topic)}>
        <Box component="form" onSubmit={add}>
          <OutlinedInput
            fullWidth
            size="small"
            value={typed}
            placeholder="Reference of another topic"
            onChange={(event) => type(event.target.value)}
            inputProps={{ "aria-label": "Reference of a related topic" }}
          />
        </Box>
      </Only>
    </>
  );
}
