import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { SHEET_FORMATS } from "../api/constants";
import { isBusy, isSheet, type SheetTask } from "../open/tasks/task";
import { useTaskActs, useTasks } from "../open/tasks/useTasks";
import { useOpen } from "../open/useStage";
import { DeskActs, DeskHeading, DeskNote } from "../parts/desk";
import { Only } from "../parts/Only";
import { TaskProgress } from "../parts/TaskProgress";
import { tone } from "../style/theme";

/** The sheets of the project: cuts drawn to scale, to be looked at and saved. */
export function Sheets() {
  const { data, error } = useTasks();
  const sheets = data?.filter(isSheet) ?? [];
  if (!sheets.length && !error) return null;
  return (
    <>
      <DeskHeading>Sheets</DeskHeading>
      {error && <DeskNote>{error.message}</DeskNote>}
      {sheets.map((sheet) => (
        <Row key={sheet.id} sheet={sheet} />
      ))}
    </>
  );
}

function Row({ sheet }: { sheet: SheetTask }) {
  const { federation } = useOpen();
  const { again, remove, stop } = useTaskActs();
  const address = (form: string) => `/api/tasks/${sheet.id}/sheet/${form}`;
  const busy = isBusy(sheet);
  const old = sheet.made_for !== null && sheet.made_for !== federation.version && !busy;
  return (
    <Box
      data-testid="sheet"
      data-status={sheet.status}
      sx={{ borderTop: `1px solid ${tone.line}`, py: 0.75 }}
    >
      <Box sx={{ fontWeight: 600, fontSize: 14, overflowWrap: "anywhere" }}>{sheet.name}</Box>
      {sheet.status === "done" && (
        <Box sx={{ fontSize: 12.5, color: tone.soft }}>
          {sheet.message}, {sheet.author}
        </Box>
      )}
      {old && (
        <Box sx={{ fontSize: 12.5, color: tone.wrong }}>The building has changed. Draw the sheet again.</Box>
      )}
      <TaskProgress task={sheet} />
      <DeskActs>
        {sheet.made > 0 && (
          <Button variant="text" component="a" href={address("svg")} target="_blank" rel="noreferrer">
            Look at it
          </Button>
        )}
        {sheet.made > 0 &&
          SHEET_FORMATS.map(({ form, name }) => (
            <Button key={form} variant="text" component="a" href={`${address(form)}?save=true`} download>
              {name}
            </Button>
          ))}
        <Only to="run checks and make sheets">
          <Button variant="text" onClick={() => void (busy ? stop(sheet.id) : again(sheet.id))}>
            {busy ? "Stop" : "Draw again"}
          </Button>
          <Button variant="text" onClick={() => void remove(sheet.id, sheet.name)}>
            Delete
          </Button>
        </Only>
      </DeskActs>
    </Box>
  );
}
