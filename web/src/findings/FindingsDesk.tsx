import Box from "@mui/material/Box";
import { isCheck } from "../open/tasks/task";
import { useTasks } from "../open/tasks/useTasks";
import { DeskHeading, DeskNote } from "../parts/desk";
import { Only } from "../parts/Only";
import { CheckForm } from "./CheckForm";
import { CheckRow } from "./CheckRow";

/** Where components overlap or come too near: the checks of the project and their findings. */
export function FindingsDesk() {
  const { data, error } = useTasks();
  const checks = data?.filter(isCheck);
  return (
    <Box>
      <Only to="run checks and make sheets">
        <CheckForm />
      </Only>
      <DeskHeading>Checks</DeskHeading>
      {error && <DeskNote>{error.message}</DeskNote>}
      {checks?.length === 0 && (
        <DeskNote>No checks yet. A check and its findings are saved for everyone.</DeskNote>
      )}
      {checks?.map((check) => (
        <CheckRow key={check.id} check={check} />
      ))}
    </Box>
  );
}
