import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import NativeSelect from "@mui/material/NativeSelect";
import { useState } from "react";
import { useSession } from "../open/session";
import { useUnits } from "../open/units";
import { DeskActs, DeskNote } from "../parts/desk";
import { counted } from "../parts/words";
import { type Findings, type Joining, joined, spokenWorst, topicsOf, useLooked } from "./finding";
import { type Check, useLookAt } from "./useLookAt";
import type { TopicsByPair } from "./useTopicsByPair";

const WAYS = [
  ["each", "one topic per finding"],
  ["component", "one topic per shared component"],
  ["all", "one topic for all findings"],
] as const;

/** Making topics of many findings at once: those that are ticked, or all that are listed. */
export function ManyTopics(props: { findings: Findings; check: Check; byPair: TopicsByPair }) {
  const { findings, check, byPair } = props;
  const ticked = useLooked((s) => s.ticked);
  const units = useUnits();
  const look = useLookAt(findings);
  const [how, setHow] = useState<Joining>("each");
  const making = useLooked((s) => s.making);
  const without = findings.findings.flatMap((each, k) =>
    topicsOf(findings, each, byPair).length ? [] : [k],
  );
  const there = ticked.filter((k) => k < findings.findings.length);
  const groups = joined(findings, there, how);
  const make = async () => {
    let made = 0;
    const { opened } = useLooked.getState();
    for (const [k, group] of groups.entries()) {
      useLooked.setState({ making: { done: k, of: groups.length } });
      // What is made stays, and the rest stays ticked.
      if (!(await look.topic(group, check, (finding) => spokenWorst(finding, units)))) break;
      made++;
      useLooked.setState((s) =>
        s.opened === opened ? { ticked: s.ticked.filter((each) => !group.includes(each)) } : {},
      );
    }
    useLooked.setState({ making: null });
    if (made === groups.length)
      useSession.getState().say(`Made ${counted(made, "topic")}; they are on the Topics desk.`);
  };
  return (
    <Box data-testid="many-topics" sx={{ my: 0.5 }}>
      <DeskActs>
        <Button variant="text" onClick={() => useLooked.setState({ ticked: without })}>
          {without.length === findings.findings.length ? "Tick all" : "Tick all without a topic"}
        </Button>
        {there.length > 0 && (
          <Button variant="text" onClick={() => useLooked.setState({ ticked: [] })}>
            Tick none
          </Button>
        )}
      </DeskActs>
      {there.length > 0 && (
        <>
          <NativeSelect
            value={how}
            inputProps={{ "aria-label": "How findings become topics" }}
            sx={{ fontSize: 13 }}
            onChange={(event) => {
              const wanted = WAYS.find(([name]) => name === event.target.value);
              if (wanted) setHow(wanted[0]);
            }}
          >
            {WAYS.map(([name, words]) => (
              <option key={name} value={name}>
                {words}
              </option>
            ))}
          </NativeSelect>
          <Button
            variant="outlined"
            disabled={making !== null}
            sx={{ color: "inherit" }}
            onClick={() => void make()}
          >
            {making ? `${making.done} of ${making.of} made` : `Make ${counted(groups.length, "topic")}`}
          </Button>
        </>
      )}
      {!there.length && <DeskNote>Tick findings to make topics of them together.</DeskNote>}
    </Box>
  );
}
