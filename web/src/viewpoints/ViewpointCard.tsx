import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import OutlinedInput from "@mui/material/OutlinedInput";
import { type FormEvent, useState } from "react";
import { blobAddress, type Viewpoint } from "../api/client";
import { useViewpointActs } from "../api/queries";
import { spokenMoment } from "../open/dates";
import { useSession, withErrorNotice } from "../open/session";
import { useOpen } from "../open/useStage";
import { useShelf } from "../open/views/shelfState";
import { useShowViewpoint } from "../open/views/viewpoints";
import { DeskActs } from "../parts/desk";
import { tone } from "../style/theme";
import { drag, useDrops } from "./dragging";
import { KeepOver } from "./KeepOver";
import { useBeginFraming } from "./useKeepFramed";

/** A kept view with its picture: a click goes there; it is dragged to another place, and ticked to be moved with others. */
export function ViewpointCard({ viewpoint }: { viewpoint: Viewpoint }) {
  const { projectId } = useOpen();
  const show = useShowViewpoint();
  const { rename, remove, restore } = useViewpointActs(projectId);
  const say = useSession((s) => s.say);
  const { ticked, tick } = useShelf();
  const [typed, setTyped] = useState<string | null>(null);
  const dropsHere = useDrops();
  const frame = useBeginFraming();

  const finish = (event: FormEvent) => {
    event.preventDefault();
    const name = typed?.trim();
    if (!name) return setTyped(null);
    // What was typed stays until it is kept.
    void withErrorNotice(async () => {
      await rename.mutateAsync({ id: viewpoint.id, name });
      setTyped(null);
    });
  };
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
    <Box
      data-testid="viewpoint"
      draggable={typed === null}
      onDragStart={(event) => drag(event, ticked.includes(viewpoint.id) ? ticked : [viewpoint.id])}
      {...dropsHere(viewpoint)}
      sx={{ position: "relative", "&[data-over=yes]": { boxShadow: `0 -3px 0 ${tone.here}` } }}
    >
      <Box
        component="input"
        type="checkbox"
        aria-label={`Tick ${viewpoint.name}`}
        title="Tick several to move or delete them together"
        checked={ticked.includes(viewpoint.id)}
        onChange={() => tick(viewpoint.id)}
        sx={{ position: "absolute", right: 6, top: 6, zIndex: 1, m: 0, accentColor: tone.ink }}
      />
      <Box
        component="button"
        type="button"
        onClick={() => void show(viewpoint, false, useShelf.getState().brings)}
        aria-label={`Go to ${viewpoint.name}`}
        sx={{
          p: 0,
          border: `1px solid ${tone.line}`,
          bgcolor: tone.film,
          display: "block",
          width: "100%",
          cursor: "pointer",
          "&:hover": { borderColor: tone.ink },
        }}
      >
        <Box
          component="img"
          src={blobAddress(viewpoint.picture)}
          alt=""
          draggable={false}
          sx={{ width: "100%", display: "block", aspectRatio: "16 / 10", objectFit: "cover" }}
        />
      </Box>
      {typed === null ? (
        <Box sx={{ fontWeight: 600, fontSize: 14.5, mt: 0.5, overflowWrap: "anywhere" }}>
          {viewpoint.name}
          {viewpoint.new && (
            <Box component="span" sx={{ ml: 0.75, fontSize: 12, color: tone.here }}>
              new
            </Box>
          )}
        </Box>
      ) : (
        <form onSubmit={finish}>
          <OutlinedInput
            autoFocus
            fullWidth
            size="small"
            value={typed}
            onBlur={finish}
            onChange={(event) => setTyped(event.target.value)}
            inputProps={{ "aria-label": "New name", maxLength: 120 }}
          />
        </form>
      )}
      <Box sx={{ fontSize: 12.5, color: tone.soft }}>
        <Box>
          {viewpoint.author}, {spokenMoment(viewpoint.created_at)}
          {viewpoint.changed_by &&
            viewpoint.changed_by !== viewpoint.author &&
            `, changed by ${viewpoint.changed_by}`}
        </Box>
        <DeskActs>
          <Button variant="text" onClick={() => setTyped(viewpoint.name)}>
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
          <KeepOver key={viewpoint.changed_at} viewpoint={viewpoint} />
          <Button variant="text" onClick={() => void drop()}>
            Delete
          </Button>
        </DeskActs>
      </Box>
    </Box>
  );
}
