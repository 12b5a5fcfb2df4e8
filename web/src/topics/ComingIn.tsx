import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import { isBusy, type TopicsTask } from "../open/tasks/task";
import { useTaskActs } from "../open/tasks/useTasks";
import { useOpen } from "../open/useStage";
import { DeskActs } from "../parts/desk";
import { Only } from "../parts/Only";
import { TaskProgress } from "../parts/TaskProgress";
import { counted } from "../parts/words";
import { tone } from "../style/theme";
import { ImportPreview } from "./ImportPreview";
import { useReport } from "./useTopicFiles";

/** A file of topics that comes in: how far it is, what became of it, and what could not be read. */
export function ComingIn({ task }: { task: TopicsTask }) {
  const { again, remove, stop } = useTaskActs();
  const { federation } = useOpen();
  const [open, setOpen] = useState(false);
  const { data } = useReport(task);
  const busy = isBusy(task);
  const previewed = task.status === "done" && task.wish.preview === true;
  const shift = data?.shift_m;
  const lost = data?.problems ?? [];
  const unknown = data?.unknown ?? [];
  return (
    <Box
      data-testid="coming-in"
      data-status={task.status}
      sx={{ borderTop: `1px solid ${tone.line}`, py: 0.5, fontSize: 13 }}
    >
      <Box sx={{ fontWeight: 600, overflowWrap: "anywhere" }}>{task.name}</Box>
      {task.status === "done" && !previewed && <Box>{task.message}</Box>}
      <TaskProgress task={task} />
      {previewed && (
        <Only to="import topics">
          <ImportPreview key={task.made} task={task} />
        </Only>
      )}
      {unknown.length > 0 && (
        <Box sx={{ color: tone.soft }}>
          The file names {counted(unknown.length, "component")} that no model has. They are found once one
          brings them.
        </Box>
      )}
      {shift && (
        <Box sx={{ color: tone.wrong }}>
          Its viewpoints are off by {shift.map((c) => c.toFixed(0)).join(", ")} m (x, y, z) beside{" "}
          {federation.name}.{" "}
          <Only to="import topics">
            <Button variant="text" onClick={() => void again(task.id, { ...task.wish, shift_m: [...shift] })}>
              Move them
            </Button>
          </Only>
        </Box>
      )}
      {lost.length > 0 && (
        <Button variant="text" aria-expanded={open} onClick={() => setOpen(!open)} sx={{ ml: 0 }}>
          {counted(lost.length, "part")} could not be read
        </Button>
      )}
      {open &&
        lost.map((problem, k) => (
          <Box
            // biome-ignore lint/suspicious/noArrayIndexKey: the problems of a report keep their order
            key={k}
            sx={{ color: tone.wrong, fontSize: 12.5, overflowWrap: "anywhere" }}
          >
            {problem.text}
          </Box>
        ))}
      <Only to="run checks and make sheets">
        <DeskActs>
          {busy ? (
            <Button variant="text" onClick={() => void stop(task.id)}>
              Stop
            </Button>
          ) : (
            <>
              {!previewed && (
                <Button variant="text" onClick={() => void again(task.id)}>
                  Repeat
                </Button>
              )}
              <Button variant="text" onClick={() => void remove(task.id, task.name)}>
                {previewed ? "Do not import" : "Close"}
              </Button>
            </>
          )}
        </DeskActs>
      </Only>
    </Box>
  );
}
