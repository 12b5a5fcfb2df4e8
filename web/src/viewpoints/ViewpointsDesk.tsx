import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import OutlinedInput from "@mui/material/OutlinedInput";
import { type FormEvent, useState } from "react";
import { blobAddress, type Viewpoint } from "../api/client";
import { useViewpointActs, useViewpoints } from "../api/queries";
import { orAloud, useSession } from "../open/session";
import { useOpen } from "../open/useStage";
import { DeskHeading, DeskNote } from "../parts/desk";
import { tone } from "../theme";
import { useKeepView, useShowViewpoint } from "./viewpoints";

/** Kept views with their pictures; a click goes there. */
export function ViewpointsDesk() {
  const { projectId } = useOpen();
  const { data, error } = useViewpoints(projectId);
  return (
    <Box>
      <KeepForm count={data?.length ?? 0} />
      <DeskHeading>Viewpoints</DeskHeading>
      {error && <DeskNote>{error.message}</DeskNote>}
      {data?.length === 0 && (
        <DeskNote>None yet. A viewpoint keeps where you stand and what is shown, for everyone.</DeskNote>
      )}
      <Box sx={{ display: "grid", gap: 1.5 }}>
        {data?.map((viewpoint) => (
          <Card key={viewpoint.id} viewpoint={viewpoint} />
        ))}
      </Box>
    </Box>
  );
}

function KeepForm({ count }: { count: number }) {
  const keep = useKeepView();
  const [name, setName] = useState("");
  const [busy, setBusy] = useState(false);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    // What was typed stays until it is kept.
    if (await keep(name.trim() || `View ${count + 1}`)) {
      setName("");
      // The next key is for the stage again.
      if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
    }
    setBusy(false);
  };
  return (
    <form onSubmit={submit}>
      <DeskHeading>Keep this view</DeskHeading>
      <Box sx={{ display: "flex", gap: 0.75 }}>
        <OutlinedInput
          fullWidth
          size="small"
          value={name}
          placeholder={`View ${count + 1}`}
          onChange={(event) => setName(event.target.value)}
          inputProps={{ "aria-label": "Name of the viewpoint", maxLength: 120 }}
        />
        <Button type="submit" variant="contained" disabled={busy}>
          Keep
        </Button>
      </Box>
    </form>
  );
}

function Card({ viewpoint }: { viewpoint: Viewpoint }) {
  const { projectId } = useOpen();
  const show = useShowViewpoint();
  const { rename, remove, restore } = useViewpointActs(projectId);
  const say = useSession((s) => s.say);
  const [typed, setTyped] = useState<string | null>(null);
  const made = new Date(viewpoint.created_at);

  const finish = (event: FormEvent) => {
    event.preventDefault();
    const name = typed?.trim();
    if (!name) return setTyped(null);
    // What was typed stays until it is kept.
    void orAloud(async () => {
      await rename.mutateAsync({ id: viewpoint.id, name });
      setTyped(null);
    });
  };
  const drop = () =>
    orAloud(async () => {
      await remove.mutateAsync(viewpoint.id);
      say(`"${viewpoint.name}" was deleted.`, () => void orAloud(() => restore.mutateAsync(viewpoint.id)));
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
    <Box data-testid="viewpoint">
      <Box
        component="button"
        type="button"
        onClick={() => void show(viewpoint)}
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
          sx={{ width: "100%", display: "block", aspectRatio: "16 / 10", objectFit: "cover" }}
        />
      </Box>
      {typed === null ? (
        <Box sx={{ fontWeight: 600, fontSize: 14.5, mt: 0.5, overflowWrap: "anywhere" }}>
          {viewpoint.name}
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
      <Box
        sx={{
          display: "flex",
          alignItems: "baseline",
          columnGap: 1.5,
          fontSize: 12.5,
          color: tone.soft,
          flexWrap: "wrap",
        }}
      >
        <Box sx={{ width: "100%" }}>
          {viewpoint.author}, {made.toLocaleDateString("en-GB", { day: "numeric", month: "short" })}{" "}
          {made.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" })}
        </Box>
        <Button variant="text" onClick={() => setTyped(viewpoint.name)}>
          rename
        </Button>
        <Button variant="text" onClick={() => void link()}>
          link
        </Button>
        <Button variant="text" onClick={() => void drop()}>
          delete
        </Button>
      </Box>
    </Box>
  );
}
