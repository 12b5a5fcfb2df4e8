import Box from "@mui/material/Box";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useMemo, useRef } from "react";
import { useSelection } from "../open/selection";
import { membersOf, pathTo, type Row, rowsOf } from "../open/selections/groups";
import { useRegister } from "../open/selections/registerState";
import { tone } from "../style/theme";
import { ColumnHeads, rowsPx } from "./FiguresOfRow";
import { RowOfList } from "./RowOfList";
import type { useSchedule } from "./useSchedule";

const ROW_PX = 27;
type List = NonNullable<ReturnType<typeof useSchedule>["list"]>;

/** The groups as rows that open: only those in sight are on the page, however many there are. */
export function GroupRows({ list }: { list: List }) {
  const open = useRegister((s) => s.open);
  const picked = useSelection((s) => s.picked);
  const scroller = useRef<HTMLDivElement>(null);
  const own = useRef(false);
  const rows = useMemo(() => rowsOf(list.tree, open, list.groupOf), [list, open]);
  const chosen = useMemo(() => new Set(picked), [picked]);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: 8,
  });
  // What is picked on the stage is shown in the list; what is picked in the list stays where it is.
  const [one] = picked;
  useEffect(() => {
    if (own.current || one === undefined) {
      own.current = false;
      return;
    }
    const path = pathTo(one, list.groups, list.groupOf);
    if (!path.length) return;
    const { open: before, put } = useRegister.getState();
    const next = [...new Set([...before, ...path])];
    if (next.length > before.length) put({ open: next });
    const at = rowsOf(list.tree, next, list.groupOf).findIndex((row) => row.key === `c${one}`);
    requestAnimationFrame(() => virtual.scrollToIndex(at, { align: "center" }));
  }, [one, list, virtual]);
  const pick = (row: Row, more: boolean) => {
    own.current = true;
    const those = row.kind === "component" ? [row.component] : membersOf(row.group, list.groupOf);
    useSelection.getState().pick(more ? [...new Set([...picked, ...those])] : those);
  };
  const minWidth = rowsPx(list.columns.length);
  return (
    <Box
      ref={scroller}
      data-testid="register-rows"
      sx={{ overflow: "auto", flex: "1 1 220px", minHeight: 160, mx: -1.5, px: 1.5 }}
    >
      {list.columns.length > 0 && (
        <Box sx={{ position: "sticky", top: 0, zIndex: 1, bgcolor: tone.paper, minWidth }}>
          <ColumnHeads columns={list.columns} />
        </Box>
      )}
      <Box
        role="tree"
        aria-label="Register"
        sx={{ height: virtual.getTotalSize(), position: "relative", minWidth }}
      >
        {virtual.getVirtualItems().map(({ index, start }) => {
          const row = rows[index];
          if (!row) return null;
          return (
            <Box key={row.key} sx={{ position: "absolute", top: start, left: 0, right: 0, height: ROW_PX }}>
              <RowOfList row={row} list={list} chosen={chosen} pick={(more) => pick(row, more)} />
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}
