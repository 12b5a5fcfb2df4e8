import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import { useHabits } from "../open/habits";
import { face, tone } from "../style/theme";
import { LABEL_PX } from "./BoardRow";
import type { Column } from "./columns";

/** The heads of the columns: a discipline, which can be opened, or one of its systems. */
export function Heads(props: {
  columns: readonly (Column & { at: number })[];
  opened: boolean;
  counts: boolean;
  reached: number | null;
  onHead: (column: Column & { at: number }) => void;
  onOpen: (column: number) => void;
}) {
  const { columns, opened, counts, reached } = props;
  const set = useHabits((s) => s.set);
  const upright = opened || !counts;
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: `${LABEL_PX}px repeat(${columns.length}, 1fr)`,
        gap: "2px",
      }}
    >
      <Tooltip title={counts ? "A slim board, without counts" : "A wider board that counts the components"}>
        <Button
          variant="text"
          aria-pressed={counts}
          onClick={() => set({ boardCounts: !counts })}
          sx={{ fontSize: 12, p: 0, alignSelf: "end", justifyContent: "start", color: tone.soft }}
        >
          counts
        </Button>
      </Tooltip>
      {columns.map((column, k) => (
        <Box key={column.at} sx={{ display: "flex", flexDirection: "column", minWidth: 0 }}>
          <Tooltip title={`${column.name}: show, fade or hide on every level`}>
            <Box
              component="button"
              type="button"
              aria-label={`${column.code}: ${column.name}, every level`}
              data-place={`0/${k + 1}`}
              tabIndex={reached === k + 1 ? 0 : -1}
              onClick={() => props.onHead(column)}
              sx={{
                border: 0,
                borderTop: `4px solid ${column.colour}`,
                bgcolor: "transparent",
                p: 0,
                pt: "3px",
                cursor: "pointer",
                fontFamily: face.head,
                fontWeight: 600,
                fontSize: 12,
                color: tone.ink,
                ...(upright && {
                  writingMode: "vertical-rl",
                  textAlign: "left",
                  height: opened ? 128 : 34,
                  width: "100%",
                  overflow: "hidden",
                  lineHeight: 1.05,
                }),
                "&:hover": { bgcolor: tone.line },
              }}
            >
              {column.code}
            </Box>
          </Tooltip>
          {!opened && (
            <Tooltip title={`${column.name} by system`}>
              <Box
                component="button"
                type="button"
                aria-label={`${column.name} by system`}
                onClick={() => props.onOpen(column.at)}
                sx={{
                  border: 0,
                  p: 0,
                  height: 14,
                  bgcolor: "transparent",
                  color: tone.soft,
                  fontSize: 10,
                  lineHeight: "12px",
                  cursor: "pointer",
                  "&:hover": { bgcolor: tone.line, color: tone.ink },
                }}
              >
                ▾
              </Box>
            </Tooltip>
          )}
        </Box>
      ))}
    </Box>
  );
}
