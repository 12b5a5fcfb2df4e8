import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import { useBinShown } from "../open/binState";
import { spokenMoment } from "../open/dates";
import type { May } from "../open/mine";
import { DeskHeading, DeskNote } from "../parts/desk";
import { Only } from "../parts/Only";
import { CUT_OFF, tone } from "../style/theme";
import { type Deleted, useBin, useBinActs } from "./useBin";

const CALLED: Readonly<Record<Deleted["kind"], string>> = {
  topic: "Topic",
  topic_file: "File",
  viewpoint: "Viewpoint",
  folder: "Folder of viewpoints",
  meeting: "Meeting",
  meeting_point: "Note",
  set: "Set",
  route: "Route",
  task: "Check, sheet or import",
};

/** What restores what. */
const MAY: Readonly<Record<Deleted["kind"], May>> = {
  topic: "delete or restore this topic",
  topic_file: "take this file away",
  viewpoint: "change this viewpoint",
  folder: "change folders, sets and routes",
  set: "change folders, sets and routes",
  route: "change folders, sets and routes",
  meeting: "hold meetings",
  meeting_point: "hold meetings",
  task: "run checks and make sheets",
};

/** What was deleted of the project within the last 30 days, each with the way back. */
export function Bin() {
  const open = useBinShown((s) => s.open);
  const close = () => useBinShown.setState({ open: false });
  return (
    <Dialog open={open} onClose={close} aria-label="Bin">
      {open && <Listed close={close} />}
    </Dialog>
  );
}

function Listed({ close }: { close: () => void }) {
  const { data, error } = useBin();
  return (
    <Box data-testid="project-bin" sx={{ p: 2, width: 460, maxWidth: "100%" }}>
      <Box sx={{ display: "flex", justifyContent: "space-between", alignItems: "baseline" }}>
        <DeskHeading>Bin</DeskHeading>
        <Button variant="text" onClick={close}>
          Close
        </Button>
      </Box>
      {error && <DeskNote>{error.message}</DeskNote>}
      {data?.length === 0 && <DeskNote>Nothing was deleted within the last 30 days.</DeskNote>}
      {data && data.length > 0 && (
        <DeskNote>
          Deleted within the last 30 days, the last one first; after that they are removed for good. Removed
          models are on the Models desk.
        </DeskNote>
      )}
      {data?.map((each) => (
        <Row key={each.id} thing={each} />
      ))}
    </Box>
  );
}

function Row({ thing }: { thing: Deleted }) {
  const { restore } = useBinActs();
  const { kind, name, of, by, removed_at } = thing;
  return (
    <Box
      data-testid="deleted"
      sx={{ display: "flex", gap: 1, alignItems: "center", borderTop: `1px solid ${tone.line}`, py: 0.5 }}
    >
      <Box sx={{ flex: 1, minWidth: 0, fontSize: 13.5 }}>
        <Box sx={{ ...CUT_OFF, fontWeight: 600 }} title={name}>
          {name}
        </Box>
        <Box sx={{ ...CUT_OFF, fontSize: 12.5, color: tone.soft }}>
          {CALLED[kind]}
          {of && ` of ${of}`}, deleted {spokenMoment(removed_at)}
        </Box>
      </Box>
      <Only to={MAY[kind]} made={by}>
        <Button variant="text" aria-label={`Restore ${name}`} onClick={() => void restore(thing)}>
          Restore
        </Button>
      </Only>
    </Box>
  );
}
