import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, blobAddress, type ProjectCard, taken } from "../api/client";
import { keys, useProjects } from "../api/queries";
import { usePerson } from "../people/person";
import { useSession } from "../project/session";
import { face, tone } from "../theme";
import { ChooseFiles, DropZone } from "./DropZone";
import { nameFrom } from "./naming";
import { uploadsOf } from "./uploads";

/** The projects, and making a new one from dropped files. */
export function StartPage() {
  const { data, error } = useProjects();
  const client = useQueryClient();
  const go = useNavigate();
  const author = usePerson((s) => s.name);
  const [wrong, setWrong] = useState("");
  const make = useMutation({
    mutationFn: (name: string) =>
      taken(api.POST("/api/projects", { body: { name, author: author || "Somebody" } })),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.projects }),
    onError: (failed) => setWrong(failed.message),
  });
  const start = (files: File[]) =>
    make.mutate(nameFrom(files), {
      onSuccess: (project) => {
        useSession.getState().open("models");
        uploadsOf(project.id).add(files);
        void go(`/p/${project.id}`);
      },
    });
  return (
    <DropZone onFiles={start}>
      <Box sx={{ height: "100%", overflow: "auto", bgcolor: tone.film }}>
        <Box
          component="header"
          sx={{
            bgcolor: tone.ink,
            color: tone.paper,
            height: 44,
            display: "flex",
            alignItems: "center",
            px: 1.75,
            fontSize: 18,
            fontWeight: 600,
          }}
        >
          Stair Path
        </Box>
        <Box sx={{ maxWidth: 1080, mx: "auto", p: 4 }}>
          <Box component="h1" sx={{ fontSize: 26, fontWeight: 600, m: 0, mb: 0.5 }}>
            Projects
          </Box>
          <Box sx={{ color: tone.soft, mb: 3, fontSize: 15 }}>
            Open a building, or drop its IFC files anywhere on this page to make a new project.
          </Box>
          {(error || wrong) && <Box sx={{ color: tone.wrong, mb: 2 }}>{error?.message || wrong}</Box>}
          <Box
            sx={{ display: "grid", gridTemplateColumns: "repeat(auto-fill, minmax(300px, 1fr))", gap: 2.5 }}
          >
            {data?.map((project) => (
              <Card key={project.id} project={project} />
            ))}
            <NewCard
              onFiles={start}
              onEmpty={() => make.mutate("New project", { onSuccess: (p) => void go(`/p/${p.id}`) })}
            />
          </Box>
        </Box>
      </Box>
    </DropZone>
  );
}

function Card({ project }: { project: ProjectCard }) {
  const made = new Date(project.created_at).toLocaleDateString("en-GB", {
    day: "numeric",
    month: "long",
    year: "numeric",
  });
  return (
    <Box
      component={Link}
      to={`/p/${project.id}`}
      data-testid="project"
      sx={{
        textDecoration: "none",
        color: tone.ink,
        border: `1px solid ${tone.line}`,
        bgcolor: tone.paper,
        display: "block",
        "&:hover": { borderColor: tone.ink },
      }}
    >
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
            src={blobAddress(project.picture)}
            alt={`${project.name} from its front`}
            sx={{ width: "100%", height: "100%", objectFit: "cover" }}
          />
        ) : (
          <Box sx={{ color: tone.soft }}>{project.reading ? "Being read ..." : "No models yet"}</Box>
        )}
      </Box>
      <Box sx={{ p: 1.5 }}>
        <Box sx={{ fontSize: 17, fontWeight: 600 }}>{project.name}</Box>
        <Box sx={{ color: tone.soft, fontSize: 13 }}>
          {project.models} models ·{" "}
          <Box component="span" sx={{ fontFamily: face.figure, fontSize: 12 }}>
            {project.components}
          </Box>{" "}
          components
          {project.reading > 0 && ` · ${project.reading} being read`}
        </Box>
        <Box sx={{ color: tone.soft, fontSize: 13 }}>
          Made by {project.created_by}, {made}
        </Box>
      </Box>
    </Box>
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
            start empty
          </Button>
        </Box>
      </Box>
    </Box>
  );
}
