import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import { type CheckTask, isBusy } from "../open/tasks/task";
import { useFindings, useTaskActs } from "../open/tasks/useTasks";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { DeskActs, DeskNote } from "../parts/desk";
import { NameField } from "../parts/NameField";
import { Only } from "../parts/Only";
import { TaskProgress } from "../parts/TaskProgress";
import { counted } from "../parts/words";
import { tone } from "../style/theme";
import { FindingRows } from "./FindingRows";
import { useLooked } from "./finding";
import { Limits, limitsOf } from "./Limits";
import { Proposals } from "./Proposals";

/** One check: how far it is, what it came to, and its findings once it is open. */
export function CheckRow({ check }: { check: CheckTask }) {
  const opened = useLooked((s) => s.opened === check.id);
  const { federation } = useOpen();
  const { again, remove, stop } = useTaskActs();
  const { data, error } = useFindings(opened || check.made ? check.id : null, check.made);
  const [editing, setEditing] = useState(false);
  const busy = isBusy(check);
  const old = check.made_for !== null && check.made_for !== federation.version && !busy;
  return (
    <Box
      data-testid="check"
      data-status={check.status}
      sx={{ borderTop: `1px solid ${tone.line}`, py: 0.75 }}
    >
      <Box
        component="button"
        type="button"
        aria-expanded={opened}
        onClick={() => useLooked.setState({ opened: opened ? null : check.id, at: null, ticked: [] })}
        sx={{
          border: 0,
          p: 0,
          width: "100%",
          minHeight: 28,
          bgcolor: "transparent",
          font: "inherit",
          fontWeight: 600,
          fontSize: 14,
          color: opened ? tone.here : tone.ink,
          textAlign: "left",
          cursor: "pointer",
          overflowWrap: "anywhere",
        }}
      >
        {check.name}
      </Box>
      {data && (
        <Box sx={{ fontSize: 13 }}>{data.count ? counted(data.count, "finding") : "nothing found"}</Box>
      )}
      {old && (
        <Box sx={{ fontSize: 12.5, color: tone.wrong }}>The building has changed. Run the check again.</Box>
      )}
      <TaskProgress task={check} />
      {error && <DeskNote>{error.message}</DeskNote>}
      <Only to="run checks and make sheets">
        <DeskActs>
          {busy ? (
            <Button variant="text" onClick={() => void stop(check.id)}>
              Stop
            </Button>
          ) : (
            <Button variant="text" onClick={() => void again(check.id)}>
              Run again
            </Button>
          )}
          <Button variant="text" aria-expanded={editing} onClick={() => setEditing(!editing)}>
            Rules
          </Button>
          <Button variant="text" onClick={() => void remove(check.id, check.name)}>
            Delete
          </Button>
        </DeskActs>
      </Only>
      {editing && <Rules check={check} done={() => setEditing(false)} />}
      {opened && <Proposals check={check} made={check.made} />}
      {opened && data && <FindingRows findings={data} check={check} />}
    </Box>
  );
}

/** The rules of a check, to be changed; it runs again with them. */
function Rules({ check, done }: { check: CheckTask; done: () => void }) {
  const { again, rename } = useTaskActs();
  const units = useUnits();
  const [limits, setLimits] = useState(() => limitsOf(check.wish));
  const read = limits.read(units);
  return (
    <Box sx={{ borderLeft: `3px solid ${tone.here}`, pl: 1, my: 0.5 }}>
      <Box sx={{ fontSize: 12.5 }}>
        {check.wish.a.called} and {check.wish.b.called}
        {check.wish.swings && ", including door swings"}
      </Box>
      <NameField
        label="Name"
        field={`name of check ${check.id}`}
        about="Name of the check"
        value={check.name}
        keep={(name) => rename(check.id, name)}
      />
      <Limits limits={limits} set={setLimits} />
      <Button
        variant="outlined"
        disabled={!read}
        onClick={() => {
          if (read) void again(check.id, { ...check.wish, ...read }).then((asked) => asked && done());
        }}
      >
        Run
      </Button>
    </Box>
  );
}
