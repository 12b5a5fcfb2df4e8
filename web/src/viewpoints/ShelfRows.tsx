import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useHabits } from "../open/habits";
import { BELOW, type Below, type Shelf } from "../open/views/shelf";
import { useShelf } from "../open/views/shelfState";
import { DeskNote } from "../parts/desk";
import { face, tone } from "../style/theme";
import { useDrops } from "./dragging";
import { FolderActs } from "./FolderActs";
import { ViewpointItem } from "./ViewpointItem";

const INDENT_PX = 12;
const isBelow = (key: string): key is Below => key in BELOW;

/** A folder with its viewpoints in their order, or those of none; viewpoints are dropped into it. */
export function ShelfRows(props: {
  shelf: Shelf;
  /** The folder that stands above it where both stand. */
  above: string | null;
  /** Whether there is nothing else, so that it needs no heading. */
  alone: boolean;
  /** Whether all of it is shown, since something was looked for. */
  all: boolean;
}) {
  const { shelf, above, alone, all } = props;
  const { key, folder, views, inside, depth } = shelf;
  const { closed, opened, turn, put } = useShelf();
  const pictures = useHabits((s) => s.viewpointsAs === "pictures");
  const dropsHere = useDrops();
  const open = all || !closed.includes(key);
  const name = folder?.name ?? (isBelow(key) ? BELOW[key] : "");
  return (
    <Box
      data-testid="shelf"
      sx={{ mt: depth ? 0.5 : 1.25, ml: `${depth * INDENT_PX}px` }}
      {...dropsHere({ folder: folder?.id ?? null })}
    >
      {!(alone && key === "none") && (
        <Box
          sx={{ display: "flex", alignItems: "baseline", gap: 0.5, borderBottom: `1px solid ${tone.line}` }}
        >
          <Box
            component="button"
            type="button"
            aria-expanded={open}
            onClick={() => turn(key)}
            sx={{
              border: 0,
              p: 0,
              bgcolor: "transparent",
              font: "inherit",
              fontSize: 14,
              fontWeight: 600,
              color: tone.ink,
              cursor: "pointer",
              flex: 1,
              textAlign: "left",
              overflowWrap: "anywhere",
            }}
          >
            {open ? "▾" : "▸"} {name}
          </Box>
          <Box sx={{ fontFamily: face.figure, fontSize: 12, color: tone.soft }}>{inside.length}</Box>
          {folder && (
            <Button
              variant="text"
              aria-expanded={opened === key}
              aria-label={`More commands for the folder ${name}`}
              onClick={() => put({ opened: opened === key ? null : key })}
              sx={{ ml: 0.5 }}
            >
              More
            </Button>
          )}
        </Box>
      )}
      {opened === key && folder && <FolderActs shelf={shelf} above={above} />}
      {open && folder && !inside.length && (
        <DeskNote>Empty. Drag viewpoints here, or tick them and move them.</DeskNote>
      )}
      {open && views.length > 0 && (
        <Box
          sx={
            pictures
              ? {
                  display: "grid",
                  gridTemplateColumns: "repeat(auto-fill, minmax(200px, 1fr))",
                  gap: 1.5,
                  mt: 1,
                }
              : {}
          }
        >
          {views.map((viewpoint) => (
            <ViewpointItem key={viewpoint.id} viewpoint={viewpoint} large={pictures} />
          ))}
        </Box>
      )}
    </Box>
  );
}
