import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { type FormEvent, useState } from "react";
import type { Shapes } from "../api/client";
import { grouped } from "../api/locale";
import { bytesSaid, MB } from "../open/bytes";
import { spokenDay } from "../open/dates";
import { useAttempt } from "../parts/attempt";
import { counted } from "../parts/words";
import { tone } from "../style/theme";
import { SignInField } from "./SignInField";
import { useServerProjectActs } from "./useServer";
import { Wrong } from "./Wrong";

type Limits = Shapes["ProjectLimits"];
const FIELDS: readonly [keyof Limits, string][] = [
  ["file_mb", "Largest file, in MB"],
  ["unpacked_mb", "Largest file once unpacked, in MB"],
  ["storage_mb", "All files together, in MB"],
  ["components", "Components"],
  ["tasks", "Checks, sheets and imports not yet done"],
];

/** A project as the owners of the server see it: how large it is, who owns it, and what it may hold. */
export function ServerProject({ project }: { project: Shapes["ServerProject"] }) {
  const [open, setOpen] = useState<"limits" | "owner" | null>(null);
  const { limits, owners } = project;
  const toggle = (what: "limits" | "owner") => setOpen(open === what ? null : what);
  return (
    <Box
      component="li"
      data-testid="server-project"
      sx={{ borderTop: `1px solid ${tone.line}`, py: 1, overflowWrap: "anywhere" }}
    >
      <Box sx={{ display: "flex", gap: 2, alignItems: "baseline", flexWrap: "wrap" }}>
        <Box sx={{ flex: "1 1 300px" }}>
          <Box sx={{ fontWeight: 600 }}>
            {project.name}
            {project.removed_at && (
              <Box component="span" sx={{ fontWeight: 400, color: tone.soft }}>
                , in the bin since {spokenDay(project.removed_at)}
              </Box>
            )}
          </Box>
          <Box sx={{ color: tone.soft, fontSize: 13 }}>
            {bytesSaid(project.storage_bytes)} of at most {bytesSaid(limits.storage_mb * MB)},{" "}
            {counted(project.models, "model")}, {counted(project.components, "component")} of at most{" "}
            {grouped(limits.components)}
            {project.own_limits && " (limits of its own)"}
            {project.visited_at && `, visited on ${spokenDay(project.visited_at)}`}
          </Box>
          <Box sx={{ fontSize: 13, color: owners.length ? tone.soft : tone.wrong }}>
            {owners.length ? `Owned by ${owners.join(", ")}` : "Nobody owns it. Make somebody its owner."}
          </Box>
        </Box>
        <Button variant="text" aria-expanded={open === "limits"} onClick={() => toggle("limits")}>
          Limits
        </Button>
        <Button variant="text" aria-expanded={open === "owner"} onClick={() => toggle("owner")}>
          Add an owner
        </Button>
      </Box>
      {open === "limits" && <LimitsForm project={project} done={() => setOpen(null)} />}
      {open === "owner" && <OwnerForm project={project} done={() => setOpen(null)} />}
    </Box>
  );
}

function LimitsForm({ project, done }: { project: Shapes["ServerProject"]; done: () => void }) {
  const { limit } = useServerProjectActs(project.id);
  const { wrong, attempt } = useAttempt();
  const [typed, setTyped] = useState(() => FIELDS.map(([name]) => String(project.limits[name])));
  const wrongOne = FIELDS.find((_, at) => !/^[1-9]\d*$/.test((typed[at] ?? "").trim()));
  const save = (wish: Limits | null) =>
    attempt(async () => {
      await limit.mutateAsync(wish);
      done();
    });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const [file_mb = 0, unpacked_mb = 0, storage_mb = 0, components = 0, tasks = 0] = typed.map(Number);
    save({ file_mb, unpacked_mb, storage_mb, components, tasks });
  };
  return (
    <Box component="form" onSubmit={submit} sx={{ display: "grid", gap: 1, maxWidth: 380, mt: 1 }}>
      {FIELDS.map(([name, label], at) => (
        <SignInField
          key={name}
          label={label}
          value={typed[at] ?? ""}
          put={(text) => setTyped(typed.map((each, other) => (other === at ? text : each)))}
          fills="off"
          first={at === 0}
        />
      ))}
      <Box sx={{ fontSize: 13, color: tone.soft }}>What the project holds already stays.</Box>
      <Wrong text={wrong || (wrongOne ? `${wrongOne[1]}: type a whole number above 0.` : "")} />
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
        <Button type="submit" variant="contained" disabled={wrongOne !== undefined}>
          Save
        </Button>
        {project.own_limits && (
          <Button variant="text" onClick={() => save(null)}>
            As for all projects
          </Button>
        )}
        <Button variant="text" onClick={done}>
          Cancel
        </Button>
      </Box>
    </Box>
  );
}

function OwnerForm({ project, done }: { project: Shapes["ServerProject"]; done: () => void }) {
  const { giveOwner } = useServerProjectActs(project.id);
  const { wrong, attempt } = useAttempt();
  const [key, setKey] = useState("");
  const submit = (event: FormEvent) => {
    event.preventDefault();
    attempt(async () => {
      await giveOwner.mutateAsync(key);
      done();
    });
  };
  return (
    <Box component="form" onSubmit={submit} sx={{ display: "grid", gap: 1, maxWidth: 380, mt: 1 }}>
      <SignInField
        label="Name that they sign in with"
        value={key}
        put={setKey}
        fills="off"
        hint="They own the project from now on; its record says so."
        first
      />
      <Wrong text={wrong} />
      <Box sx={{ display: "flex", gap: 1 }}>
        <Button type="submit" variant="contained" disabled={!key.trim()}>
          Make an owner
        </Button>
        <Button variant="text" onClick={done}>
          Cancel
        </Button>
      </Box>
    </Box>
  );
}
