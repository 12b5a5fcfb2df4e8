import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import OutlinedInput from "@mui/material/OutlinedInput";
import { type FormEvent, useState } from "react";
import { blobAddress, type Viewpoint } from "../api/client";
import { spokenMoment } from "../open/dates";
import { useMay } from "../open/mine";
import { useOpen } from "../open/useStage";
import { useShelf } from "../open/views/shelfState";
import { useViewpointActs } from "../open/views/useViewpointActs";
import { useShowViewpoint } from "../open/views/viewpoints";
import { TickBox } from "../parts/TickBox";
import { CUT_OFF, tone } from "../style/theme";
import { drag, useDrops } from "./dragging";
import { ViewpointActs } from "./ViewpointActs";

/** Who kept a viewpoint and when, and for what. */
function told({ author, created_at, changed_by, of }: Viewpoint): string {
  const changed = changed_by && changed_by !== author ? `, changed by ${changed_by}` : "";
  const names = (of ?? []).map(({ name }) => `, ${name}`).join("");
  return `${author}, ${spokenMoment(created_at)}${changed}${names}`;
}

/** A kept view as a row with a small picture, or below a large one: a click goes there; it is dragged to another place, and ticked to be moved with others. */
export function ViewpointItem({ viewpoint, large }: { viewpoint: Viewpoint; large: boolean }) {
  const show = useShowViewpoint();
  const { ticked, opened, put } = useShelf();
  const [renaming, setRenaming] = useState(false);
  const dropsHere = useDrops();
  const may = useMay();
  const go = () => void show(viewpoint, false, useShelf.getState().brings);
  const open = opened === viewpoint.id;
  return (
    <Box
      data-testid="viewpoint"
      draggable={!renaming && may("change folders, sets and routes")}
      onDragStart={(event) => drag(event, ticked.includes(viewpoint.id) ? ticked : [viewpoint.id])}
      {...dropsHere(viewpoint)}
      sx={{
        borderTop: large ? 0 : `1px solid ${tone.line}`,
        "&[data-over=yes]": { boxShadow: `0 -3px 0 ${tone.here}` },
      }}
    >
      <Box sx={{ display: large ? "block" : "flex", gap: 0.75, alignItems: "center", position: "relative" }}>
        <Ticked viewpoint={viewpoint} over={large} />
        <Picture viewpoint={viewpoint} large={large} go={go} />
        <Box sx={{ minWidth: 0, flex: 1, py: 0.4, lineHeight: 1.3 }}>
          {renaming ? (
            <NewName viewpoint={viewpoint} done={() => setRenaming(false)} />
          ) : (
            <Box
              component="button"
              type="button"
              onClick={go}
              title={viewpoint.name}
              sx={{
                ...CUT_OFF,
                display: "block",
                width: "100%",
                border: 0,
                p: 0,
                bgcolor: "transparent",
                font: "inherit",
                fontSize: 13.5,
                fontWeight: 600,
                color: tone.ink,
                textAlign: "left",
                cursor: "pointer",
              }}
            >
              {viewpoint.name}
              {viewpoint.new && (
                <Box component="span" sx={{ ml: 0.75, fontSize: 12, color: tone.pickInk }}>
                  new
                </Box>
              )}
            </Box>
          )}
          <Box sx={{ fontSize: 12, color: tone.soft, ...CUT_OFF }} title={told(viewpoint)}>
            {told(viewpoint)}
          </Box>
        </Box>
        <Button
          variant="text"
          aria-expanded={open}
          aria-label={`More commands for ${viewpoint.name}`}
          onClick={() => put({ opened: open ? null : viewpoint.id })}
          sx={{ flex: "none" }}
        >
          More
        </Button>
      </Box>
      {open && <ViewpointActs viewpoint={viewpoint} rename={() => setRenaming(true)} />}
    </Box>
  );
}

function Ticked({ viewpoint, over }: { viewpoint: Viewpoint; over: boolean }) {
  const { ticked, tick } = useShelf();
  const box = (
    <TickBox
      label={`Tick ${viewpoint.name}`}
      title="Tick several to move or delete them together"
      on={ticked.includes(viewpoint.id)}
      turn={() => tick(viewpoint.id)}
    />
  );
  return over ? <Box sx={{ position: "absolute", right: 6, top: 6, zIndex: 1 }}>{box}</Box> : box;
}

function Picture(props: { viewpoint: Viewpoint; large: boolean; go: () => void }) {
  const { viewpoint, large, go } = props;
  const { projectId } = useOpen();
  return (
    <Box
      component="button"
      type="button"
      onClick={go}
      aria-label={`Go to ${viewpoint.name}`}
      sx={{
        p: 0,
        border: `1px solid ${tone.line}`,
        bgcolor: tone.film,
        display: "block",
        width: large ? "100%" : 56,
        flex: "none",
        cursor: "pointer",
        "&:hover": { borderColor: tone.ink },
      }}
    >
      <Box
        component="img"
        src={blobAddress(projectId, viewpoint.picture)}
        alt=""
        loading="lazy"
        draggable={false}
        sx={{ width: "100%", display: "block", aspectRatio: "16 / 10", objectFit: "cover" }}
      />
    </Box>
  );
}

/** Another name, typed in place of the name. */
function NewName({ viewpoint, done }: { viewpoint: Viewpoint; done: () => void }) {
  const { rename } = useViewpointActs();
  const [typed, setTyped] = useState(viewpoint.name);
  const finish = async (event: FormEvent) => {
    event.preventDefault();
    const name = typed.trim();
    if (!name || name === viewpoint.name) return done();
    // What was typed stays until it is kept.
    if (await rename(viewpoint, name)) done();
  };
  return (
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
  );
}
