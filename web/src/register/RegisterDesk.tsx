import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useSelection } from "../open/selection";
import { groupName, numbersIn, selectorOf, stepName } from "../open/selections/groups";
import { useRegister } from "../open/selections/registerState";
import { tint } from "../open/visibility/tints";
import { DeskActs, DeskHeading, DeskNote } from "../parts/desk";
import { SeeingActs } from "../parts/SeeingActs";
import { counted } from "../parts/words";
import { Conditions } from "./Conditions";
import { Grouping } from "./Grouping";
import { GroupRows } from "./GroupRows";
import { Sets } from "./Sets";
import { useConditions, useSaveSchedule, useSchedule } from "./useSchedule";

/** The building as a list: all of it or what meets conditions, grouped, counted and summed. */
export function RegisterDesk() {
  const { list, error, coming } = useSchedule();
  const count = list?.groups.reduce((sum, group) => sum + group.count, 0) ?? 0;
  return (
    <Box sx={{ display: "flex", flexDirection: "column", minHeight: "100%" }}>
      <DeskHeading>Register</DeskHeading>
      <Conditions />
      <Grouping />
      <Box aria-live="polite" sx={{ mt: 1, fontSize: 13, fontWeight: 600 }} data-testid="register-count">
        {error && !coming ? "" : list && !coming ? counted(count, "component") : "Counting…"}
      </Box>
      {error && <DeskNote>{error.message}</DeskNote>}
      {list && <Whole />}
      {list && <GroupRows list={list} />}
      <Sets />
    </Box>
  );
}

/** What can be done with all that is listed. */
function Whole() {
  const { list } = useSchedule();
  const { steps, set } = useRegister();
  const conditions = useConditions();
  const save = useSaveSchedule();
  const select = selectorOf([], steps, conditions, set?.name ?? "");
  const pick = () => list && useSelection.getState().pick(numbersIn(list.groupOf, (place) => place >= 0));
  return (
    <DeskActs>
      {conditions.length > 0 && (
        <>
          <Button variant="text" onClick={pick}>
            Select all
          </Button>
          <SeeingActs select={select} />
        </>
      )}
      <Button
        variant="text"
        onClick={() =>
          list &&
          tint(
            list.tree.map((group) => ({
              name: groupName(group, steps),
              select: selectorOf(group.path, steps, conditions, set?.name ?? ""),
              count: group.count,
            })),
            select,
            `tinted by ${stepName(steps[0] ?? "")}`,
          )
        }
      >
        Tint by {stepName(steps[0] ?? "")}
      </Button>
      <Button variant="text" onClick={() => void save("csv")}>
        CSV
      </Button>
      <Button variant="text" onClick={() => void save("xlsx")}>
        Spreadsheet
      </Button>
    </DeskActs>
  );
}
