import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import OutlinedInput from "@mui/material/OutlinedInput";
import { type FormEvent, useState } from "react";
import { Link } from "react-router";
import { blobAddress, type ProjectCard } from "../api/client";
import { useProjectActs } from "../api/queries";
import { spokenDay } from "../open/dates";
import type { Attempt } from "../parts/attempt";
import { counted } from "../parts/words";
import { tone } from "../style/theme";
import { useMe } from "./useMe";

/** A project on the start page: its picture, what is in it, and what can be done with it. */
export function Project({ project, attempt }: { project: ProjectCard; attempt: Attempt }) {
  const [renaming, setRenaming] = useState(false);
  const { rename, remove } = useProjectActs();
  const me = useMe().data?.person;
  const signed = me && !me.guest_of;
  const take = (name: string | null) => {
    if (!name || name === project.name) return setRenaming(false);
    if (rename.isPending) return;
    // What was typed stays until it is kept.
    attempt(async () => {
      await rename.mutateAsync({ id: project.id, name });
      setRenaming(false);
    });
  };
  return (
    <Box
      data-testid="project"
      sx={{ border: `1px solid ${tone.line}`, bgcolor: tone.paper, "&:hover": { borderColor: tone.ink } }}
    >
      <Box
        component={Link}
        to={`/p/${project.id}`}
        aria-label={`Open ${project.name}`}
        sx={{ textDecoration: "none", color: tone.ink, display: "block" }}
      >
        <Picture project={project} />
        {!renaming && (
          <Box sx={{ fontSize: 17, fontWeight: 600, p: 1.5, pb: 0, overflowWrap: "anywhere" }}>
            {project.name}
          </Box>
        )}
      </Box>
      <Box sx={{ p: 1.5, pt: renaming ? 1.5 : 0 }}>
        {renaming && <Rename name={project.name} done={take} />}
        <Facts project={project} />
        <Box sx={{ mt: 0.5 }}>
          {project.role === "own" && (
            <>
              <Button variant="text" onClick={() => setRenaming(true)} aria-label={`Rename ${project.name}`}>
                Rename
              </Button>
              <Button
                variant="text"
                onClick={() => attempt(() => remove.mutateAsync(project.id))}
                aria-label={`Move to bin: ${project.name}`}
              >
                Move to bin
              </Button>
            </>
          )}
          {signed && (
            <Button
              variant="text"
              component={Link}
              to={`/p/${project.id}/members`}
              aria-label={`Who is in ${project.name}`}
            >
              {project.role === "own" ? "Members" : "What you may"}
            </Button>
          )}
        </Box>
      </Box>
    </Box>
  );
}

function Picture({ project }: { project: ProjectCard }) {
  return (
    <Box
      sx={{
        aspectRatio: "16 / 10",
        bgcolor: tone.film,
        borderBottom: `1px solid ${tone.line}`,
        display: "grid",
        placeItems: "center",
        overflow: "hidden",
      }}
    >
      {project.picture ? (
        <Box
          component="img"
          src={blobAddress(project.id, project.picture)}
          alt={`Front of ${project.name}`}
          sx={{ width: "100%", height: "100%", objectFit: "cover" }}
        />
      ) : (
        <Box sx={{ color: tone.soft }}>{project.reading ? "Reading…" : "No models yet"}</Box>
      )}
    </Box>
  );
}

function Facts({ project }: { project: ProjectCard }) {
  const made = spokenDay(project.created_at);
  return (
    <Box sx={{ color: tone.soft, fontSize: 13 }}>
      {counted(project.models, "model")} · {counted(project.components, "component")}
      {project.reading > 0 && ` · ${project.reading} being read`}
      <br />
      Created by {project.created_by}, {made}
    </Box>
  );
}

/** The name in a field; Enter or leaving it takes it, Esc leaves it as it was. */
function Rename({ name, done }: { name: string; done: (name: string | null) => void }) {
  const [typed, setTyped] = useState(name);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    done(typed.trim());
  };
  return (
    <form onSubmit={submit}>
      <OutlinedInput
        autoFocus
        fullWidth
        size="small"
        value={typed}
        inputProps={{ "aria-label": `New name of ${name}`, maxLength: 120 }}
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === "Escape") done(null);
        }}
        onBlur={() => done(typed.trim())}
        sx={{ mb: 0.75 }}
      />
    </form>
  );
}
