import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import { useEffect, useMemo, useRef } from "react";
import { useSeen } from "../open/seen";
import { cellOf } from "../open/selectors";
import { useSession } from "../open/session";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { useSeeing } from "../seen/useSeeing";
import { face, tone } from "../theme";
import { boardOf, cellKey, heightShare, type Row, stateOf, type Tally, tallies, together } from "./board";
import { Cell, EFFECT, NEXT } from "./Cell";
import { CutMarks } from "./CutMarks";

const LABEL_PX = 60;

/** Levels down, disciplines across: the building's own cross-section, to show, fade or hide by. */
export function StoreyBoard() {
  const { federation } = useOpen();
  const states = useSeen((s) => s.states);
  const { put, everything, undo } = useSeeing();
  const undoable = useSeen((s) => s.history.at > 0);
  const board = useMemo(() => boardOf(federation), [federation]);
  const seen = useMemo(() => tallies(federation, states), [federation, states]);
  const tallyOf = (level: number, discipline: number) => seen.get(cellKey(level, discipline));

  /** A cell, a level or a discipline goes to the state after the one it reads as. */
  const cycle = (level: number | null, discipline: number | null, cells: Iterable<Tally | undefined>) =>
    put(EFFECT[NEXT[stateOf(together(cells))]], cellOf(federation, level, discipline));
  const { hidden, faded } = together(seen.values());
  return (
    <Box
      sx={{
        p: 1.5,
        pt: 1.25,
        display: "flex",
        flexDirection: "column",
        minHeight: 0,
        height: "100%",
        gap: 0.75,
      }}
    >
      <Heading />
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: `${LABEL_PX}px repeat(${board.columns.length}, 1fr)`,
          gap: "2px",
        }}
      >
        <span />
        {board.columns.map((discipline) => {
          const known = federation.disciplines[discipline];
          return (
            <Tooltip key={discipline} title={`${known?.name}: show, fade or hide on every level`}>
              <Box
                component="button"
                type="button"
                aria-label={`${known?.name}, every level`}
                onClick={() =>
                  cycle(
                    null,
                    discipline,
                    board.rows.map((r) => tallyOf(r.level, discipline)),
                  )
                }
                sx={{
                  border: 0,
                  borderTop: `4px solid ${known?.colour}`,
                  bgcolor: "transparent",
                  p: 0,
                  pt: "3px",
                  cursor: "pointer",
                  fontFamily: face.head,
                  fontWeight: 600,
                  fontSize: 12,
                  color: tone.ink,
                  "&:hover": { bgcolor: tone.line },
                }}
              >
                {known?.code}
              </Box>
            </Tooltip>
          );
        })}
      </Box>
      <Box
        sx={{
          position: "relative",
          flex: "1 1 auto",
          minHeight: 0,
          maxHeight: 486,
          mt: "16px",
          display: "flex",
          flexDirection: "column",
          gap: "3px",
        }}
      >
        {board.rows.map((row) => (
          <BoardRow
            key={row.level}
            row={row}
            columns={board.columns}
            tallyOf={(discipline) => tallyOf(row.level, discipline)}
            onRow={() =>
              cycle(
                row.level,
                null,
                board.columns.map((d) => tallyOf(row.level, d)),
              )
            }
            onCell={(discipline) => cycle(row.level, discipline, [tallyOf(row.level, discipline)])}
          />
        ))}
        <CutMarks rows={board.rows} />
        <EyeMark rows={board.rows} />
      </Box>
      <Box
        sx={{ borderTop: `1px solid ${tone.line}`, pt: 1, fontSize: 12.5, color: tone.soft, minHeight: 62 }}
      >
        {hidden || faded ? (
          <>
            <Box sx={{ color: tone.ink }} data-testid="hidden-count">
              <b>{hidden}</b> hidden · <b>{faded}</b> faded
            </Box>
            <Button variant="text" onClick={everything}>
              Bring all back
            </Button>
          </>
        ) : (
          <Box>Everything is shown. Click a cell, a level or a discipline: show, fade, hide.</Box>
        )}
        {undoable && (
          <Button variant="text" onClick={undo}>
            Undo
          </Button>
        )}
      </Box>
    </Box>
  );
}

function Heading() {
  const fold = useSession((s) => s.fold);
  return (
    <Box sx={{ display: "flex", justifyContent: "space-between", alignItems: "baseline" }}>
      <Box
        component="h2"
        sx={{ m: 0, fontFamily: face.head, fontSize: 12, letterSpacing: ".06em", color: tone.soft }}
      >
        STOREY BOARD
      </Box>
      <Button variant="text" onClick={() => fold("board", true)} sx={{ fontSize: 12, color: tone.soft }}>
        fold
      </Button>
    </Box>
  );
}

function BoardRow(props: {
  row: Row;
  columns: readonly number[];
  tallyOf: (discipline: number) => Tally | undefined;
  onRow: () => void;
  onCell: (discipline: number) => void;
}) {
  const { row, columns, tallyOf } = props;
  const { federation } = useOpen();
  const units = useUnits();
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
      <Tooltip title={`${row.name}: show, fade or hide every discipline`} placement="right">
        <Box
          component="button"
          type="button"
          onClick={props.onRow}
          aria-label={`${row.name}, every discipline`}
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
          <Box sx={{ fontFamily: face.head, fontWeight: 600, fontSize: 13, lineHeight: 1.15 }}>
            {row.name}
          </Box>
          <Box sx={{ fontFamily: face.figure, fontSize: 12, color: tone.soft }}>
            {Number.isFinite(row.elevationM) ? units.height(row.elevationM) : ""}
          </Box>
        </Box>
      </Tooltip>
      {columns.map((discipline) => (
        <Cell
          key={discipline}
          level={row.name}
          discipline={federation.disciplines[discipline]}
          tally={tallyOf(discipline)}
          onClick={() => props.onCell(discipline)}
        />
      ))}
    </Box>
  );
}

/** A line across the board at the height of the eye; follows it without rendering React. */
function EyeMark({ rows }: { rows: readonly Row[] }) {
  const { eye } = useOpen();
  const units = useUnits();
  const mark = useRef<HTMLDivElement>(null);
  const label = useRef<HTMLSpanElement>(null);
  useEffect(
    () =>
      eye.listen((pose) => {
        if (!mark.current || !label.current) return;
        const { share, beyond } = heightShare(rows, pose.eye.z);
        mark.current.style.top = `${share * 100}%`;
        mark.current.dataset.beyond = beyond;
        label.current.textContent = `eye ${units.height(pose.eye.z)}${beyond === "above" ? " ↑" : beyond === "below" ? " ↓" : ""}`;
      }),
    [eye, rows, units],
  );
  return (
    <>
      <Box
        component="span"
        ref={label}
        data-testid="eye-mark"
        sx={{
          position: "absolute",
          left: 0,
          bottom: "100%",
          fontFamily: face.figure,
          fontSize: 12,
          fontWeight: 600,
          lineHeight: "16px",
          color: tone.here,
        }}
      />
      <Box
        ref={mark}
        sx={{
          position: "absolute",
          left: -12,
          right: -6,
          height: 0,
          borderTop: `2px solid ${tone.here}`,
          pointerEvents: "none",
          "&::before": {
            content: '""',
            position: "absolute",
            left: 0,
            top: -6,
            border: "5px solid transparent",
            borderLeft: `9px solid ${tone.here}`,
          },
        }}
      />
    </>
  );
}
