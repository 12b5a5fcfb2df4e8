import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { Shapes } from "../api/client";
import { FIELD } from "../parts/field";
import { Switch } from "../parts/Switch";
import { Tick } from "../parts/Tick";
import { tone } from "../style/theme";

export type StatusWish = Shapes["TopicStatus"] & { key: string };

/** A status that is being changed: its name, whether nothing is waited for at it, and which may follow. */
export function StatusRow(props: {
  status: StatusWish;
  others: readonly StatusWish[];
  put: (part: Partial<StatusWish>) => void;
  remove: () => void;
}) {
  const { status, others, put, remove } = props;
  const called = status.name || "the new status";
  return (
    <Box data-testid="status-row" sx={{ borderLeft: `2px solid ${tone.line}`, pl: 1, my: 1 }}>
      <Box sx={{ display: "flex", gap: 1, alignItems: "center" }}>
        <Box
          component="input"
          aria-label={`Name of ${called}`}
          placeholder="name"
          value={status.name}
          onChange={(event: React.ChangeEvent<HTMLInputElement>) => put({ name: event.target.value })}
          sx={{ ...FIELD, flex: 1, minWidth: 0 }}
        />
        <Tick label="final" on={status.end} set={(end) => put({ end })} />
        <Button variant="text" onClick={remove} aria-label={`Remove ${called}`}>
          Remove
        </Button>
      </Box>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.5, alignItems: "center", mt: 0.5, fontSize: 12 }}>
        <Box component="span" sx={{ color: tone.soft }}>
          then
        </Box>
        {others.map(({ key, name }) => (
          <Switch
            key={key}
            name={name || "new"}
            on={status.next.includes(key)}
            turn={() =>
              put({
                next: status.next.includes(key)
                  ? status.next.filter((each) => each !== key)
                  : [...status.next, key],
              })
            }
          />
        ))}
      </Box>
    </Box>
  );
}
