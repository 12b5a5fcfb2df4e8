import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import NativeSelect from "@mui/material/NativeSelect";
import type { Viewpoint } from "../api/client";
import { useMay } from "../open/mine";
import { useOpen } from "../open/useStage";
import type { Folder } from "../open/views/shelf";
import { useShelf } from "../open/views/shelfState";
import { playTour } from "../open/views/tourState";
import { useFolderActs } from "../open/views/useFolders";
import { useViewpointActs } from "../open/views/useViewpointActs";
import { Only } from "../parts/Only";
import { counted } from "../parts/words";
import { tone } from "../style/theme";

/** What is done with several viewpoints at once: moved into a folder, or deleted with undo. */
export function TickedActs({ views, folders }: { views: readonly Viewpoint[]; folders: readonly Folder[] }) {
  const { projectId } = useOpen();
  const { ticked, put } = useShelf();
  const may = useMay();
  const { move } = useFolderActs();
  const { remove } = useViewpointActs();
  // Another may have deleted some of them.
  const those = views.filter(({ id }) => ticked.includes(id)).map(({ id }) => id);
  if (!those.length) return null;
  // In the order in which they were ticked.
  const play = () =>
    playTour(
      "the ticked viewpoints",
      ticked.flatMap((id) => views.find((view) => view.id === id) ?? []),
    );
  const query = new URLSearchParams(those.map((id) => ["view", id]));
  const address = `/api/projects/${projectId}/viewpoints/file?${query}`;
  const drop = async () => {
    if (await remove(views.filter(({ id }) => those.includes(id)))) put({ ticked: [] });
  };
  return (
    <Box
      data-testid="ticked"
      sx={{
        display: "flex",
        flexWrap: "wrap",
        alignItems: "center",
        columnGap: 1.25,
        fontSize: 13,
        border: `1px solid ${tone.line}`,
        p: 0.75,
        mt: 1,
      }}
    >
      <span>{counted(those.length, "viewpoint")}</span>
      <Only to="change folders, sets and routes">
        <NativeSelect
          value=""
          onChange={async (event) => {
            const to = event.target.value;
            if (await move(those, to === "none" ? null : to)) put({ ticked: [] });
          }}
          inputProps={{ "aria-label": "Move the ticked viewpoints to" }}
          sx={{ fontSize: 13, maxWidth: 140 }}
        >
          <option value="">Move to…</option>
          {folders.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
          <option value="none">no folder</option>
        </NativeSelect>
      </Only>
      <Button variant="text" sx={{ ml: 0 }} onClick={play}>
        Play
      </Button>
      <Button variant="text" sx={{ ml: 0 }} component="a" href={address} download>
        Save as BCF
      </Button>
      {views.every(
        ({ id, author }) => !those.includes(id) || may("change this viewpoint", { made: author }),
      ) && (
        <Button variant="text" sx={{ ml: 0 }} onClick={() => void drop()}>
          Delete
        </Button>
      )}
      <Button variant="text" sx={{ ml: 0 }} onClick={() => put({ ticked: [] })}>
        None
      </Button>
    </Box>
  );
}
