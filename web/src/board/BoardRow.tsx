import Box from "@mui/material/Box";
import Tooltip from "@mui/material/Tooltip";
import { useUnits } from "../open/units";
import type { Tally } from "../open/visibility/tallies";
import { Unseen } from "../parts/Unseen";
import { face, tone } from "../style/theme";
import type { Row } from "./board";
import { Cell } from "./Cell";
import type { Column } from "./columns";

/** The column of names and heights. */
export const LABEL_PX = 44;

/** A level of the board: its name and height, and a cell for each column. */
export function BoardRow(props: {
  row: Row;
  columns: readonly (Column & { at: number })[];
  tallyOf: (column: number) => Tally | undefined;
  onRow: () => void;
  onCell: (column: Column & { at: number }) => void;
  /** Which of its buttons the Tab key reaches, counted from the name on; none where it is in another row. */
  reached: number | null;
  place: number;
  /** Each cell says how many components it holds. */
  counts: boolean;
}) {
  const { row, columns, tallyOf, reached, place } = props;
  const units = useUnits();
  const heightM = Number.isFinite(row.elevationM) ? row.elevationM : null;
  return (
    <Box
      sx={{
        flex: `${row.heightM} 1 0`,
        minHeight: 30,
        display: "grid",
        gap: "2px",
        borderTop: `1.5px solid ${tone.ink}`,
        pt: "2px",
        gridTemplateColumns: `${LABEL_PX}px repeat(${columns.length}, 1fr)`,
      }}
    >
      <Tooltip
        title={`${row.name}${heightM === null ? "" : ` at ${units.signed(heightM)}`}: show, fade or hide all of it`}
        placement="right"
      >
        <Box
          component="button"
          type="button"
          onClick={props.onRow}
          data-place={`${place}/0`}
          tabIndex={reached === 0 ? 0 : -1}
          sx={{
            border: 0,
            bgcolor: "transparent",
            p: 0,
            textAlign: "left",
            alignSelf: "start",
            cursor: "pointer",
            color: tone.ink,
            "&:hover": { bgcolor: tone.line },
          }}
        >
          <Unseen>{`${row.name}, every discipline`}</Unseen>
          <Box aria-hidden sx={{ fontFamily: face.head, fontWeight: 600, fontSize: 13, lineHeight: 1.15 }}>
            {row.name}
          </Box>
          <Box aria-hidden sx={{ fontSize: 12, color: tone.soft, whiteSpace: "nowrap" }}>
            {heightM === null ? "" : units.shortHeight(heightM)}
          </Box>
        </Box>
      </Tooltip>
      {columns.map((column, k) => (
        <Cell
          key={column.at}
          level={row.name}
          column={column}
          tally={tallyOf(column.at)}
          counted={props.counts}
          place={`${place}/${k + 1}`}
          reached={reached === k + 1}
          onClick={() => props.onCell(column)}
        />
      ))}
    </Box>
  );
}
