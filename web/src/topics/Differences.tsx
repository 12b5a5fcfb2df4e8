import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import type { Shapes } from "../api/client";
import { spokenDay } from "../open/dates";
import { counted } from "../parts/words";
import { face, tone } from "../style/theme";

type Difference = Shapes["Difference"];
const CALLED: Readonly<Record<string, string>> = { assigned_to: "assigned to", due: "due date" };

const shown = (field: string, value: string) =>
  value ? (field === "due" ? spokenDay(value) : value) : "nothing";

/** What differs between a file and the topics that are here, field by field. */
export function Differences({ preview }: { preview: Shapes["TopicsPreview"] }) {
  const [open, setOpen] = useState(false);
  const all = preview.differences ?? [];
  const count = all.length + (preview.left_out ?? 0);
  if (!count) return null;
  const byTopic = new Map<string, Difference[]>();
  for (const each of all) byTopic.set(each.topic, [...(byTopic.get(each.topic) ?? []), each]);
  return (
    <Box sx={{ mt: 0.75 }}>
      <Button variant="text" aria-expanded={open} onClick={() => setOpen(!open)} sx={{ ml: 0 }}>
        {counted(count, "field")} {count === 1 ? "differs" : "differ"} from here
      </Button>
      {open && [...byTopic].map(([topic, fields]) => <OfTopic key={topic} fields={fields} />)}
      {open && (preview.left_out ?? 0) > 0 && (
        <Box sx={{ color: tone.soft }}>and {preview.left_out} more</Box>
      )}
    </Box>
  );
}

function OfTopic({ fields }: { fields: readonly Difference[] }) {
  const [first] = fields;
  if (!first) return null;
  return (
    <Box data-testid="difference" sx={{ borderLeft: `2px solid ${tone.line}`, pl: 0.75, my: 0.5 }}>
      <Box>
        <Box component="span" sx={{ fontFamily: face.figure, mr: 0.75 }}>
          {first.reference}
        </Box>
        {first.title}
      </Box>
      {fields.map(({ field, here, there, kept }) => (
        <Box key={field} sx={{ fontSize: 12.5, overflowWrap: "anywhere" }}>
          {CALLED[field] ?? field}: {shown(field, here)} → {shown(field, there)}
          {kept && <Box component="span"> (changed here too; {shown(field, here)} stays)</Box>}
        </Box>
      ))}
    </Box>
  );
}
