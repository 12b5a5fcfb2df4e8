import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useRef, useState } from "react";
import { isBusy, isTopicsIn } from "../open/tasks/task";
import { useTasks } from "../open/tasks/useTasks";
import type { Topic } from "../open/topics/listed";
import { useOpen } from "../open/useStage";
import { DeskActs, DeskHeading, DeskNote } from "../parts/desk";
import { Only } from "../parts/Only";
import { counted } from "../parts/words";
import { tone } from "../style/theme";
import { ComingIn } from "./ComingIn";
import { useTopicFiles } from "./useTopicFiles";

/** So many topics are named in an address; more of them are all or none. */
const MOST_NAMED = 80;

/** Taking topics in from files of the open format, and saving those that are listed as one. */
export function TopicFilesInOut({ shown, all }: { shown: readonly Topic[]; all: number }) {
  const { projectId } = useOpen();
  const { data } = useTasks();
  const { take } = useTopicFiles();
  const [busy, setBusy] = useState(false);
  const [earlier, setEarlier] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const coming = data?.filter(isTopicsIn) ?? [];
  // What came in before is looked up now and then; what comes in now, or came last, is read.
  const [last] = coming;
  const latest = coming.filter((task) => isBusy(task) || task === last);
  const some = shown.length < all;
  const address = (version: string) => {
    const query = new URLSearchParams({ version });
    if (some) for (const { id } of shown) query.append("topic", id);
    return `/api/projects/${projectId}/topics/file?${query}`;
  };
  const list = (form: string) => {
    const query = new URLSearchParams({ form });
    if (some) for (const { id } of shown) query.append("topic", id);
    return `/api/projects/${projectId}/topics/list?${query}`;
  };
  const tooMany = some && shown.length > MOST_NAMED;
  const sent = async (files: readonly File[]) => {
    setBusy(true);
    for (const file of files) await take(file);
    setBusy(false);
  };
  return (
    <Box>
      <DeskHeading>Files (BCF) and lists</DeskHeading>
      {(earlier ? coming : latest).map((task) => (
        <ComingIn key={task.id} task={task} />
      ))}
      {coming.length > latest.length && (
        <Button variant="text" sx={{ ml: 0 }} aria-expanded={earlier} onClick={() => setEarlier(!earlier)}>
          {earlier ? "Show the last import only" : counted(coming.length - latest.length, "earlier import")}
        </Button>
      )}
      <input
        ref={input}
        type="file"
        accept=".bcf,.bcfzip"
        multiple
        hidden
        aria-label="Topic files to import"
        onChange={(event) => {
          void sent([...(event.target.files ?? [])]);
          event.target.value = "";
        }}
      />
      <DeskActs>
        <Only to="import topics">
          <Button variant="text" disabled={busy} onClick={() => input.current?.click()}>
            {busy ? "Sending…" : "Import"}
          </Button>
        </Only>
        {shown.length > 0 && !tooMany && (
          <Box component="span" sx={{ color: tone.soft }}>
            {some ? `Export ${counted(shown.length, "topic")} as` : "Export all as"}
          </Box>
        )}
        {shown.length > 0 &&
          !tooMany &&
          ["3.0", "2.1"].map((version) => (
            <Button
              key={version}
              variant="text"
              component="a"
              href={address(version)}
              download
              aria-label={`Export ${some ? counted(shown.length, "topic") : "all"} as BCF ${version}`}
            >
              BCF {version}
            </Button>
          ))}
        {shown.length > 0 &&
          !tooMany &&
          ["xlsx", "csv"].map((form) => (
            <Button key={form} variant="text" component="a" href={list(form)} download>
              {form === "xlsx" ? "spreadsheet" : "CSV"}
            </Button>
          ))}
      </DeskActs>
      {tooMany && <DeskNote>To save topics as a file, list all of them, or at most {MOST_NAMED}.</DeskNote>}
    </Box>
  );
}
