import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import OutlinedInput from "@mui/material/OutlinedInput";
import { useState } from "react";
import type { Component } from "../api/client";
import { plainName } from "../open/plainName";
import { type Entry, figure, type Group, matching } from "../open/selections/properties";
import { useRegister } from "../open/selections/registerState";
import { useSession } from "../open/session";
import { useUnits } from "../open/units";
import { DeskHeading, DeskNote } from "../parts/desk";
import { face, tone } from "../style/theme";
import { useTintBy } from "./useTintBy";

/** Properties and quantities of a component; each can be asked of all others. */
export function Properties({ component }: { component: Component }) {
  const [typed, setTyped] = useState("");
  const groups = matching(component, typed, useUnits());
  return (
    <>
      <DeskHeading>Properties and quantities</DeskHeading>
      <OutlinedInput
        fullWidth
        size="small"
        placeholder="Search these"
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        inputProps={{ "aria-label": "Search properties" }}
      />
      {groups.length === 0 && (
        <DeskNote>{typed ? "No match. Try fewer letters." : "Not in the file"}</DeskNote>
      )}
      {groups.map((group) => (
        <Box key={`${group.kind} ${group.name}`} sx={{ mt: 1.25 }}>
          <Box sx={{ fontSize: 12, color: tone.soft, fontWeight: 600, overflowWrap: "anywhere" }}>
            <InWords name={group.name} />
          </Box>
          {group.entries.map((entry) => (
            <PropertyLine key={entry.name} group={group} entry={entry} />
          ))}
        </Box>
      ))}
    </>
  );
}

/** A name of the file in plain words, with the name itself beside it where that is another one. */
function InWords({ name }: { name: string }) {
  const plain = plainName(name);
  return (
    <>
      {plain}
      {plain !== name && (
        <Box component="span" sx={{ ml: 0.75, fontSize: 11, fontWeight: 400, color: tone.soft }}>
          {name}
        </Box>
      )}
    </>
  );
}

/** A name and its value; pointed at, what can be asked with it. */
function PropertyLine({ group, entry }: { group: Group; entry: Entry }) {
  const units = useUnits();
  return (
    <Box
      data-testid="property"
      sx={{
        display: "flex",
        flexWrap: "wrap",
        justifyContent: "space-between",
        columnGap: 1.5,
        fontSize: 13,
        py: 0.3,
        borderBottom: `1px solid ${tone.line}`,
        "& .acts": { display: "none" },
        "&:hover .acts, &:focus-within .acts": { display: "flex" },
      }}
      tabIndex={0}
    >
      <Box sx={{ overflowWrap: "anywhere" }}>
        <InWords name={entry.name} />
      </Box>
      <Box
        sx={{
          textAlign: "right",
          overflowWrap: "anywhere",
          fontFamily: entry.number ? face.figure : face.text,
          fontSize: entry.number ? 12.5 : 13,
        }}
      >
        {figure(entry, units)}
      </Box>
      <Asks group={group} entry={entry} />
    </Box>
  );
}

/** A property as a condition, as a tint, as what the register is grouped by, or as a column of it. */
function Asks({ group, entry }: { group: Group; entry: Entry }) {
  const what = `${group.kind}:${group.name}.${entry.name}`;
  const { value, unit } = entry;
  const tintBy = useTintBy();
  const open = () => useSession.getState().open("register");
  const ask = (how: "equal" | "missing") => {
    const typed = value === true ? "yes" : value === false ? "no" : `${value ?? ""} ${unit}`.trim();
    useRegister
      .getState()
      .put({ drafts: [{ what, how, typed: how === "missing" ? "" : typed }], set: null, open: [] });
    open();
  };
  const given = value !== null && value !== "";
  return (
    <Box
      className="acts"
      sx={{ flexBasis: "100%", gap: 1.5, "& .MuiButton-text": { ml: 0, fontSize: 12, py: 0 } }}
    >
      {given && (
        <Button variant="text" onClick={() => ask("equal")}>
          List the same
        </Button>
      )}
      <Button variant="text" onClick={() => ask("missing")}>
        List without
      </Button>
      {given && (
        <Button variant="text" onClick={() => void tintBy(what, entry)}>
          Tint by it
        </Button>
      )}
      <Button
        variant="text"
        onClick={() => {
          const { columns, put } = useRegister.getState();
          put({ columns: [...new Set([...columns, what])] });
          open();
        }}
      >
        Column
      </Button>
      {group.kind === "property" && (
        <Button
          variant="text"
          onClick={() => {
            useRegister.getState().put({ steps: [what], open: [] });
            open();
          }}
        >
          Group by it
        </Button>
      )}
    </Box>
  );
}
