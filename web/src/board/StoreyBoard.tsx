import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import { useEffect, useMemo, useRef } from "react";
import { ALL_SHOWN, useSession } from "../project/session";
import { useOpen } from "../project/useStage";
import type { State } from "../stage/states";
import { face, tone } from "../theme";
import { boardOf, heightShare, type Row, withCells } from "./board";
import { Cell, NEXT } from "./Cell";

const LABEL_PX = 60;

/** Levels down, disciplines across: the building's own cross-section, to show, fade or hide by. */
export function StoreyBoard() {
  const { federation } = useOpen();
  const visibility = useSession((s) => s.visibility);
  const past = useSession((s) => s.past.length);
  const see = useSession((s) => s.see);
  const undo = useSession((s) => s.undo);
  const board = useMemo(() => boardOf(federation), [federation]);
  const stateOf = (level: number, discipline: number): State =>
    visibility.cells.get(`${level}/${discipline}`) ?? "shown";

  /** Rows and columns go together to the state after that of their first cell. */
  const cycle = (cells: readonly (readonly [number, number])[]) => {
    const [first] = cells;
    if (first) see(withCells(visibility, federation, cells, NEXT[stateOf(first[0], first[1])]));
  };
  const hidden = board.count(visibility, "hidden");
  const faded = board.count(visibility, "faded");
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
                  cycle(board.rows.filter((r) => r.counts.get(discipline)).map((r) => [r.level, discipline]))
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
                  fontSize: 10.5,
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
            stateOf={stateOf}
            onRow={() => cycle(board.columns.filter((d) => row.counts.get(d)).map((d) => [row.level, d]))}
            onCell={(discipline) => cycle([[row.level, discipline]])}
          />
        ))}
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
            <Button variant="text" onClick={() => see(ALL_SHOWN)}>
              Bring all back
            </Button>
          </>
        ) : (
          <Box>Everything is shown. Click a cell, a level or a discipline: show, fade, hide.</Box>
        )}
        {past > 0 && (
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
      <Button variant="text" onClick={() => fold("board", true)} sx={{ fontSize: 11.5, color: tone.soft }}>
        fold
      </Button>
    </Box>
  );
}

function BoardRow(props: {
  row: Row;
  columns: readonly number[];
  stateOf: (level: number, discipline: number) => State;
  onRow: () => void;
  onCell: (discipline: number) => void;
}) {
  const { row, columns, stateOf } = props;
  const { federation } = useOpen();
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
          <Box sx={{ fontFamily: face.figure, fontSize: 10.5, color: tone.soft }}>{row.elevation}</Box>
        </Box>
      </Tooltip>
      {columns.map((discipline) => (
        <Cell
          key={discipline}
          level={row.name}
          discipline={federation.disciplines[discipline]}
          count={row.counts.get(discipline) ?? 0}
          state={stateOf(row.level, discipline)}
          onClick={() => props.onCell(discipline)}
        />
      ))}
    </Box>
  );
}

/** A line across the board at the height of the eye; follows it without rendering React. */
function EyeMark({ rows }: { rows: readonly Row[] }) {
  const { eye } = useOpen();
  const mark = useRef<HTMLDivElement>(null);
  const label = useRef<HTMLSpanElement>(null);
  useEffect(
    () =>
      eye.listen((pose) => {
        if (!mark.current || !label.current) return;
        const { share, beyond } = heightShare(rows, pose.eye.z);
        mark.current.style.top = `${share * 100}%`;
        mark.current.dataset.beyond = beyond;
        const sign = pose.eye.z < 0 ? "−" : "+";
        label.current.textContent = `eye ${sign}${Math.abs(pose.eye.z).toFixed(2)}${beyond === "above" ? " ↑" : beyond === "below" ? " ↓" : ""}`;
      }),
    [eye, rows],
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
          fontSize: 11,
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
