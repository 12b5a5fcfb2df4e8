import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Shapes } from "../api/client";
import { spokenDay, spokenMoment } from "../open/dates";
import { tone } from "../style/theme";
import { DeskNote } from "./desk";

type Change = Shapes["ChangeMade"];

/** What was changed of something, the last first; asked for once it is unfolded. */
export function History(props: {
  /** Under which it is asked for: with the thing, so that it is asked for again when that changes. */
  queryKey: readonly string[];
  ask: () => Promise<Change[]>;
  /** Ids in it, such as of topics, as people know them. */
  known?: ReadonlyMap<string, string>;
}) {
  const [open, setOpen] = useState(false);
  return (
    <Box sx={{ mt: 0.5, width: "100%" }}>
      <Button variant="text" sx={{ ml: 0 }} aria-expanded={open} onClick={() => setOpen(!open)}>
        {open ? "Hide history" : "History"}
      </Button>
      {open && <Entries {...props} />}
    </Box>
  );
}

function Entries({ queryKey, ask, known }: Parameters<typeof History>[0]) {
  const { data, error } = useQuery({ queryKey: [...queryKey, "history"], queryFn: ask });
  if (error) return <DeskNote>{error.message}</DeskNote>;
  if (data?.length === 0) return <DeskNote>Nothing was changed yet.</DeskNote>;
  return data?.map((change) => (
    <Box
      key={change.number}
      data-testid="history-entry"
      sx={{ fontSize: 13, py: 0.5, borderTop: `1px solid ${tone.line}`, overflowWrap: "anywhere" }}
    >
      <Box sx={{ color: tone.soft, fontSize: 12 }}>
        {change.author}, {spokenMoment(change.at)}
      </Box>
      {change.fields.map((field) => (
        <Box key={field.name}>{spokenField(field, change.kind, known)}</Box>
      ))}
    </Box>
  ));
}

const spoken = (text: string, known?: ReadonlyMap<string, string>) =>
  text
    .split("\n")
    .map((line) => known?.get(line) ?? line)
    .map((line) =>
      /^\d{4}-\d\d-\d\dT/.test(line)
        ? spokenMoment(line)
        : /^\d{4}-\d\d-\d\d$/.test(line)
          ? spokenDay(line)
          : line,
    )
    .join(", ");

/** A change of a field as one says it: `title: Monday → Tuesday`. */
export function spokenField(
  { name, old, new: now }: Shapes["ChangedField"],
  kind: string,
  known?: ReadonlyMap<string, string>,
): string {
  const of = kind === "meeting_point" ? "note" : "";
  if (name === "deleted") return `${of && `${of} `}${now ? "deleted" : "restored"}`;
  if (!old && !now) return `${name} changed`;
  const [was, is] = [old, now].map((text) => (text ? spoken(text, known) : "nothing"));
  return `${of && `${of}, `}${name}: ${was} → ${is}`;
}
