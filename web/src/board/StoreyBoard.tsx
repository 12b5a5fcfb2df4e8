import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useMemo, useState } from "react";
import { useHabits } from "../open/habits";
import { useSession } from "../open/session";
import { useLastDone } from "../open/undoLine";
import { useOpen } from "../open/useStage";
import { cellOf } from "../open/visibility/selectors";
import { cellKey, type Tally, tallies, together } from "../open/visibility/tallies";
import { useSeeing } from "../open/visibility/useSeeing";
import { useViewState } from "../open/visibility/viewState";
import { useFinger } from "../parts/useFinger";
import { face, tone } from "../style/theme";
import { BoardRow } from "./BoardRow";
import { boardOf, effectAfter } from "./board";
import { CutMarks } from "./CutMarks";
import { type Column, useColumns } from "./columns";
import { EyeMark } from "./EyeMark";
import { Heads } from "./Heads";
import { TopicsOnBoard } from "./TopicsOnBoard";
import { useArrows } from "./useArrows";

/** Levels down, disciplines across: the building's own cross-section, to show, fade or hide by. */
export function StoreyBoard() {
  const { federation } = useOpen();
  // A finger's board is wide anyway.
  const finger = useFinger();
  const counts = useHabits((s) => s.boardCounts) || finger;
  const states = useViewState((s) => s.states);
  const { put } = useSeeing();
  const [wanted, open] = useState<number | null>(null);
  // A discipline that went with its model is not open any more.
  const opened =
    wanted !== null && federation.models.some((m) => m.stands && m.discipline.includes(wanted))
      ? wanted
      : null;
  const known = useColumns(opened);
  const board = useMemo(() => known && boardOf(federation, known.columnOf), [federation, known]);
  const seen = useMemo(
    () => (known ? tallies(federation, states, known.columnOf) : new Map<string, Tally>()),
    [federation, states, known],
  );
  const rows = board?.rows ?? [];
  const columns = (board?.columns ?? []).flatMap((at) => {
    const column = known?.of.get(at);
    return column ? [{ ...column, at }] : [];
  });
  const tallyOf = (level: number, column: number) => seen.get(cellKey(level, column));
  const { reached, onKey, frame } = useArrows(rows.length + 1, columns.length + 1);

  /** What is meant goes to the state after the one it reads as. */
  const cycle = (select: ReturnType<Column["select"]>, cells: Iterable<Tally | undefined>) =>
    put(effectAfter(together(cells), select, useViewState.getState()), select);
  return (
    <Box
      ref={frame}
      onKeyDown={onKey}
      sx={{
        p: 1,
        pt: 1,
        display: "flex",
        flexDirection: "column",
        minHeight: 0,
        height: "100%",
        gap: 0.75,
      }}
    >
      <Heading />
      {opened !== null && (
        <Box sx={{ display: "flex", justifyContent: "space-between", fontSize: 12.5 }}>
          <b>{federation.disciplines[opened]?.name} by system</b>
          <Button variant="text" onClick={() => open(null)} sx={{ fontSize: 12.5 }}>
            Every discipline
          </Button>
        </Box>
      )}
      <Heads
        columns={columns}
        opened={opened !== null}
        counts={counts}
        reached={reached[0] === 0 ? reached[1] : null}
        onOpen={open}
        onHead={(column) =>
          cycle(
            column.select(null),
            rows.map((row) => tallyOf(row.level, column.at)),
          )
        }
      />
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
        {rows.map((row, k) => (
          <BoardRow
            key={row.level}
            row={row}
            columns={columns}
            place={k + 1}
            counts={counts}
            reached={reached[0] === k + 1 ? reached[1] : null}
            tallyOf={(column) => tallyOf(row.level, column)}
            onRow={() =>
              cycle(
                cellOf(federation, row.level, opened),
                columns.map(({ at }) => tallyOf(row.level, at)),
              )
            }
            onCell={(column) => cycle(column.select(row.level), [tallyOf(row.level, column.at)])}
          />
        ))}
        <CutMarks rows={rows} />
        <TopicsOnBoard
          rows={rows}
          codes={opened === null ? columns.map(({ at }) => federation.disciplines[at]?.code ?? "") : []}
        />
        <EyeMark rows={rows} />
      </Box>
      <Foot />
    </Box>
  );
}

/** How much is hidden and faded of the whole building, and the ways back. */
function Foot() {
  const { federation } = useOpen();
  const states = useViewState((s) => s.states);
  const last = useLastDone();
  const { everything, undo } = useSeeing();
  const { hidden, faded } = useMemo(
    () => together(tallies(federation, states).values()),
    [federation, states],
  );
  return (
    <Box sx={{ borderTop: `1px solid ${tone.line}`, pt: 1, fontSize: 12.5, color: tone.soft, minHeight: 62 }}>
      {hidden || faded ? (
        <>
          <Box sx={{ color: tone.ink }} data-testid="hidden-count">
            <b>{hidden}</b> hidden · <b>{faded}</b> faded
          </Box>
          <Button variant="text" onClick={everything}>
            Show everything
          </Button>
        </>
      ) : (
        <Box>Everything is shown. Click a cell, level or discipline to show, fade or hide it.</Box>
      )}
      {last !== null && (
        <Button variant="text" onClick={undo} title={`Undo: ${last || "the last change"} (Ctrl Z)`}>
          Undo
        </Button>
      )}
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
        Fold
      </Button>
    </Box>
  );
}
