import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { Link, useNavigate } from "react-router";
import { useProjectActs, useProjects } from "../api/queries";
import { roomOf } from "../open/room";
import { useSession } from "../open/session";
import { uploadsOf } from "../open/uploads";
import { useAttempt } from "../parts/attempt";
import { ChooseFiles, DropZone } from "../parts/DropZone";
import { tone } from "../style/theme";
import { Bin } from "./Bin";
import { Frame } from "./Frame";
import { nameFrom } from "./naming";
import { Project } from "./Project";
import { useMe } from "./useMe";
import { Wrong } from "./Wrong";

/** The projects, and making a new one from dropped files. */
export function StartPage() {
  const { data, error } = useProjects();
  const me = useMe().data;
  const makes = !me?.closed || me.person?.owner || me.person?.makes_projects;
  const go = useNavigate();
  const { wrong, attempt } = useAttempt();
  const { make } = useProjectActs();
  // Made for files, so that nothing stays of it where none of them is taken.
  const start = (files: File[]) =>
    attempt(async () => {
      const project = await make.mutateAsync({ name: nameFrom(files), for_files: true });
      useSession.getState().open("models");
      uploadsOf(project.id).add(files, await roomOf(project.id));
      await go(`/p/${project.id}`);
    });
  const startEmpty = () =>
    attempt(async () => {
      const project = await make.mutateAsync({ name: "New project", for_files: false });
      await go(`/p/${project.id}`);
    });
  return (
    <DropZone onFiles={makes ? start : null}>
      <Frame title="Projects">
        <Box sx={{ color: tone.soft, mb: 3, fontSize: 15 }}>
          {makes
            ? "Open a building, or drop its IFC files anywhere on this page to make a new project."
            : "Open a building. Who owns a project lets you in."}
        </Box>
        <Wrong text={error?.message || wrong} />
        <Box sx={{ display: "grid", gridTemplateColumns: "repeat(auto-fill, minmax(300px, 1fr))", gap: 2.5 }}>
          {data?.map((project) => (
            <Project key={project.id} project={project} attempt={attempt} />
          ))}
          {makes && <NewCard onFiles={start} onEmpty={startEmpty} />}
        </Box>
        {data?.length === 0 && !makes && (
          <Box>You are in no project yet. Ask who owns yours to let you in.</Box>
        )}
        <Bin attempt={attempt} />
        <Box sx={{ mt: 5, fontSize: 13, "& a": { color: tone.soft } }}>
          <Link to="/notices">Third-party notices</Link>
        </Box>
      </Frame>
    </DropZone>
  );
}

function NewCard({ onFiles, onEmpty }: { onFiles: (files: File[]) => void; onEmpty: () => void }) {
  return (
    <Box
      sx={{
        border: `1.5px dashed ${tone.soft}`,
        display: "grid",
        placeItems: "center",
        minHeight: 240,
        textAlign: "center",
        p: 2,
      }}
    >
      <Box>
        <Box sx={{ fontSize: 17, fontWeight: 600 }}>New project</Box>
        <Box sx={{ color: tone.soft, fontSize: 13.5, my: 0.5 }}>Drop .ifc or .ifczip files here, or</Box>
        <Box sx={{ display: "flex", gap: 1, justifyContent: "center", alignItems: "end" }}>
          <ChooseFiles onFiles={onFiles} />
          <Button variant="text" onClick={onEmpty}>
            Start empty
          </Button>
        </Box>
      </Box>
    </Box>
  );
}
