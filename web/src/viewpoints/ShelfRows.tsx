import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import type { Viewpoint } from "../api/client";
import type { Folder } from "../open/views/shelf";
import { useShelf } from "../open/views/shelfState";
import { playTour } from "../open/views/tourState";
import { useFolderActs } from "../open/views/useFolders";
import { DeskActs, DeskNote } from "../parts/desk";
import { NameField } from "../parts/NameField";
import { face, tone } from "../style/theme";
import { useDrops } from "./dragging";
import { ViewpointCard } from "./ViewpointCard";

/** A folder with its viewpoints in their order, or those of none; viewpoints are dropped into it. */
export function ShelfRows(props: {
  folder: Folder | null;
  views: readonly Viewpoint[];
  /** The folder that stands above it. */
  above: string | null;
  /** Whether there is nothing else, so that it needs no heading. */
  alone: boolean;
}) {
  const { folder, views, above, alone } = props;
  const { closed, turn } = useShelf();
  const dropsHere = useDrops();
  const key = folder?.id ?? "";
  const open = !closed.includes(key);
  return (
    <Box data-testid="shelf" sx={{ mt: 1.5 }} {...dropsHere({ folder: folder?.id ?? null })}>
      {!(alone && !folder) && (
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
            {open ? "▾" : "▸"} {folder?.name ?? "In no folder"}
          </Box>
          <Box sx={{ fontFamily: face.figure, fontSize: 12, color: tone.soft }}>{views.length}</Box>
        </Box>
      )}
      {open && folder && <FolderActs folder={folder} views={views} above={above} />}
      {open && folder && !views.length && (
        <DeskNote>Empty. Drag viewpoints here, or tick them and move them.</DeskNote>
      )}
      {open && (
        <Box
          sx={{
            display: "grid",
            gridTemplateColumns: "repeat(auto-fill, minmax(200px, 1fr))",
            gap: 1.5,
            mt: 1,
          }}
        >
          {views.map((viewpoint) => (
            <ViewpointCard key={viewpoint.id} viewpoint={viewpoint} />
          ))}
        </Box>
      )}
    </Box>
  );
}

function FolderActs(props: { folder: Folder; views: readonly Viewpoint[]; above: string | null }) {
  const { folder, views, above } = props;
  const { rename, remove, putBefore } = useFolderActs();
  const [naming, setNaming] = useState(false);
  if (naming)
    return (
      <Box onBlur={() => setNaming(false)}>
        <NameField
          label="Name"
          field={`name of folder ${folder.id}`}
          about={`Name of the folder ${folder.name}`}
          value={folder.name}
          keep={(name) => rename(folder.id, name)}
        />
      </Box>
    );
  return (
    <DeskActs>
      <Button variant="text" aria-label={`rename ${folder.name}`} onClick={() => setNaming(true)}>
        Rename
      </Button>
      {above && (
        <Button
          variant="text"
          aria-label={`${folder.name} further up`}
          onClick={() => void putBefore(folder.id, above)}
        >
          Further up
        </Button>
      )}
      {views.length > 0 && (
        <Button
          variant="text"
          aria-label={`play ${folder.name}`}
          onClick={() => playTour(folder.name, views)}
        >
          Play
        </Button>
      )}
      <Button variant="text" aria-label={`delete ${folder.name}`} onClick={() => void remove(folder)}>
        Delete
      </Button>
    </DeskActs>
  );
}
