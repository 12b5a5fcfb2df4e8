import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect } from "react";
import { useViewpoints } from "../api/queries";
import { adding } from "../open/entries";
import { useSession } from "../open/session";
import { type Topic, viewNameOf } from "../open/topics/listed";
import { useTopicsShown } from "../open/topics/topicsState";
import { useTopic, useTopicActs } from "../open/topics/useTopics";
import { useOpen } from "../open/useStage";
import { useKeepView } from "../open/views/viewpoints";
import { DeskActs, DeskHeading, DeskNote } from "../parts/desk";
import { Greyed, Only } from "../parts/Only";
import { PictureButton } from "../parts/PictureButton";
import { face } from "../style/theme";
import { RelatedTopics, TopicFiles } from "./TopicBeside";
import { TopicFields } from "./TopicFields";
import { TopicNotes } from "./TopicNotes";
import { TopicQuestion } from "./TopicQuestion";
import { tiesOf } from "./ties";

/** One topic: what it is, its views, and everything that was said of it. */
export function TopicOpen({ id }: { id: string }) {
  const { data, error } = useTopic(id);
  const put = useTopicsShown((s) => s.put);
  const { look, remove } = useTopicActs();
  const changedAt = data?.topic.changed_at;
  useEffect(() => {
    if (changedAt) void look(id);
  }, [id, changedAt, look]);
  const { projectId } = useOpen();
  const copyLink = async () => {
    const address = `${window.location.origin}/p/${projectId}/t/${id}`;
    const { say } = useSession.getState();
    try {
      await navigator.clipboard.writeText(address);
      say(`Copied: ${address}`);
    } catch {
      say(`The browser did not allow copying: ${address}`);
    }
  };
  const back = () => put({ opened: null });
  return (
    <Box data-testid="topic-open">
      <DeskActs>
        <Button variant="text" onClick={back}>
          All topics
        </Button>
        {data && (
          <Button variant="text" onClick={() => void copyLink()}>
            Copy link
          </Button>
        )}
        {data && (
          <Only to="delete or restore this topic" made={data.topic.author}>
            <Button
              variant="text"
              onClick={async () => {
                if (await remove(data.topic)) back();
              }}
            >
              Delete
            </Button>
          </Only>
        )}
      </DeskActs>
      {error && <DeskNote>{error.message}</DeskNote>}
      {!data && !error && <DeskNote>Loading…</DeskNote>}
      {data && (
        <>
          <Box
            sx={{ fontFamily: face.figure, fontSize: 20, fontWeight: 600, mt: 0.5 }}
            data-testid="reference"
          >
            {data.topic.reference}
          </Box>
          {(data.topic.level || data.topic.room) && (
            <DeskNote>{[data.topic.level, data.topic.room].filter(Boolean).join(", ")}</DeskNote>
          )}
          <Greyed to="change this topic" {...tiesOf(data.topic)}>
            <TopicFields topic={data.topic} />
          </Greyed>
          <Views topic={data.topic} />
          <TopicFiles topic={data.topic} files={data.files} />
          <RelatedTopics topic={data.topic} />
          <TopicQuestion topic={data.topic} />
          <TopicNotes topic={data.topic} notes={data.notes} />
        </>
      )}
    </Box>
  );
}

/** Its views: a click goes there, and the present one is added. */
function Views({ topic }: { topic: Topic }) {
  const { projectId } = useOpen();
  const { data: all = [] } = useViewpoints(projectId);
  const keep = useKeepView();
  const { change } = useTopicActs();
  const views = topic.views.flatMap((id) => all.find((each) => each.id === id) ?? []);
  const add = async () => {
    const made = await keep(viewNameOf(topic));
    if (made) await change(topic.id, { views: adding(made.id) });
  };
  return (
    <>
      <DeskHeading>Views</DeskHeading>
      <Box sx={{ display: "grid", gridTemplateColumns: "repeat(auto-fill, minmax(108px, 1fr))", gap: 0.75 }}>
        {views.map((view) => (
          <PictureButton key={view.id} view={view} testId="topic-view" />
        ))}
      </Box>
      <Only to="change this topic" {...tiesOf(topic)}>
        <Button variant="text" sx={{ ml: 0 }} onClick={() => void add()}>
          Add current view
        </Button>
      </Only>
    </>
  );
}
