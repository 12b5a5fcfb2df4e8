import Button from "@mui/material/Button";
import { answerOf, api, blobAddress, type Viewpoint } from "../api/client";
import { keys } from "../api/queries";
import { useSession } from "../open/session";
import { openOnDesk } from "../open/topics/topicsState";
import { useOpen } from "../open/useStage";
import { useViewpointActs } from "../open/views/useViewpointActs";
import { DeskActs } from "../parts/desk";
import { History } from "../parts/History";
import { Only } from "../parts/Only";
import { EarlierViews } from "./EarlierViews";
import { KeepOver } from "./KeepOver";
import { useBeginFraming } from "./useKeepFramed";

/** What is done with a viewpoint. */
export function ViewpointActs({ viewpoint, rename }: { viewpoint: Viewpoint; rename: () => void }) {
  const { projectId } = useOpen();
  const { remove } = useViewpointActs();
  const say = useSession((s) => s.say);
  const frame = useBeginFraming();
  const link = async () => {
    const address = `${window.location.origin}/p/${projectId}/v/${viewpoint.id}`;
    try {
      await navigator.clipboard.writeText(address);
      say("The link was copied; it opens this view in any browser that reaches this server.");
    } catch {
      say(address);
    }
  };
  return (
    <DeskActs>
      <Only to="change this viewpoint" made={viewpoint.author}>
        <Button variant="text" onClick={rename}>
          Rename
        </Button>
      </Only>
      <Button variant="text" onClick={() => void link()}>
        Link
      </Button>
      <Only to="change this viewpoint" made={viewpoint.author}>
        <Button variant="text" onClick={() => void frame({ viewpoint })}>
          Frame
        </Button>
      </Only>
      {viewpoint.large && (
        <Button
          variant="text"
          component="a"
          href={blobAddress(projectId, viewpoint.large)}
          download={`${viewpoint.name}.png`}
        >
          Save the picture
        </Button>
      )}
      {viewpoint.of
        ?.filter(({ kind }) => kind === "topic")
        .map(({ id, name }) => (
          <Button key={id} variant="text" onClick={() => openOnDesk(id)}>
            Open {name}
          </Button>
        ))}
      <Only to="change this viewpoint" made={viewpoint.author}>
        <KeepOver key={viewpoint.changed_at} viewpoint={viewpoint} />
        <EarlierViews viewpoint={viewpoint} />
        <Button variant="text" onClick={() => void remove([viewpoint])}>
          Delete
        </Button>
      </Only>
      <History
        queryKey={[...keys.viewpoints(projectId), viewpoint.id]}
        ask={() =>
          answerOf(
            api.GET("/api/viewpoints/{viewpoint_id}/history", {
              params: { path: { viewpoint_id: viewpoint.id } },
            }),
          )
        }
      />
    </DeskActs>
  );
}
