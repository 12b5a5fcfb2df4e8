import Button from "@mui/material/Button";
import { blobAddress, type Viewpoint } from "../api/client";
import { useViewpointActs } from "../api/queries";
import { useSession, withErrorNotice } from "../open/session";
import { openOnDesk } from "../open/topics/topicsState";
import { useOpen } from "../open/useStage";
import { DeskActs } from "../parts/desk";
import { KeepOver } from "./KeepOver";
import { useBeginFraming } from "./useKeepFramed";

/** What is done with a viewpoint. */
export function ViewpointActs({ viewpoint, rename }: { viewpoint: Viewpoint; rename: () => void }) {
  const { projectId } = useOpen();
  const { remove, restore } = useViewpointActs(projectId);
  const say = useSession((s) => s.say);
  const frame = useBeginFraming();
  const drop = () =>
    withErrorNotice(async () => {
      await remove.mutateAsync(viewpoint.id);
      say(
        `"${viewpoint.name}" was deleted.`,
        () => void withErrorNotice(() => restore.mutateAsync(viewpoint.id)),
      );
    });
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
      <Button variant="text" onClick={rename}>
        Rename
      </Button>
      <Button variant="text" onClick={() => void link()}>
        Link
      </Button>
      <Button variant="text" onClick={() => void frame({ viewpoint })}>
        Frame
      </Button>
      {viewpoint.large && (
        <Button
          variant="text"
          component="a"
          href={blobAddress(viewpoint.large)}
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
      <KeepOver key={viewpoint.changed_at} viewpoint={viewpoint} />
      <Button variant="text" onClick={() => void drop()}>
        Delete
      </Button>
    </DeskActs>
  );
}
