import Box from "@mui/material/Box";
import { type PointerEvent, useRef } from "react";
import { carriedTo, endDrag, useCutting, useEndOfDrag, withDragged } from "../open/cuts/cutting";
import { type Cut, isLevel, sidesOf } from "../open/cuts/shape";
import { useOpen } from "../open/useStage";
import { useViewState } from "../open/visibility/viewState";
import { tone } from "../style/theme";
import { heightAt, heightShare, type Row } from "./board";

/** Lines across the board at the heights of level cuts, to be dragged there too. */
export function CutMarks({ rows }: { rows: readonly Row[] }) {
  const cuts = useViewState((s) => s.cuts);
  const dragged = useCutting((s) => s.dragged);
  return withDragged(cuts, dragged)
    .filter((cut) => !cut.off && isLevel(cut.shape))
    .flatMap((cut) =>
      sidesOf(cut.shape).map((side, k) => (
        <CutMark
          // biome-ignore lint/suspicious/noArrayIndexKey: the sides of a cut keep their order
          key={`${cut.id}/${k}`}
          cut={cut}
          side={k}
          heightM={side.point_m[2] ?? 0}
          upM={side.normal[2] ?? 1}
          rows={rows}
        />
      )),
    );
}

function CutMark(props: { cut: Cut; side: number; heightM: number; upM: number; rows: readonly Row[] }) {
  const { cut, side, heightM, upM, rows } = props;
  const { federation } = useOpen();
  const from = useRef<{ cut: Cut; heightM: number } | null>(null);
  const down = (event: PointerEvent<HTMLDivElement>) => {
    if (event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    from.current = { cut, heightM };
  };
  const move = (event: PointerEvent<HTMLDivElement>) => {
    const board = event.currentTarget.parentElement?.getBoundingClientRect();
    if (!from.current || !board) return;
    const share = Math.max(0, Math.min(1, (event.clientY - board.top) / board.height));
    const by = (heightAt(rows, share) - from.current.heightM) * Math.sign(upM);
    useCutting.setState({ dragged: carriedTo(federation, from.current.cut, side, by) });
  };
  const end = (keep: boolean) => {
    if (!from.current) return;
    from.current = null;
    endDrag(keep);
  };
  useEndOfDrag(from);
  return (
    <Box
      data-testid="cut-mark"
      title={`${cut.name}: drag to move the cut`}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={() => end(true)}
      onPointerCancel={() => end(false)}
      style={{ top: `${heightShare(rows, heightM).share * 100}%` }}
      sx={{
        position: "absolute",
        left: 30,
        right: -8,
        height: 14,
        mt: "-7px",
        cursor: "ns-resize",
        touchAction: "none",
        "@media (pointer: coarse)": { height: 32, mt: "-16px" },
        "&::before": {
          content: '""',
          position: "absolute",
          left: 0,
          right: 0,
          top: "calc(50% - 1.25px)",
          borderTop: `2.5px solid ${tone.ink}`,
        },
        "&::after": {
          content: '""',
          position: "absolute",
          right: 0,
          top: "calc(50% - 6px)",
          width: 6,
          height: 12,
          bgcolor: tone.ink,
        },
      }}
    />
  );
}
