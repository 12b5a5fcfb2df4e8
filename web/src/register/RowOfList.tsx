import Box from "@mui/material/Box";
import { useCameraCommands } from "../open/looking/useCameraCommands";
import { find, numberingOf } from "../open/numbering";
import { groupName, membersOf, type Row, selectorOf } from "../open/selections/groups";
import { useRegister } from "../open/selections/registerState";
import { useOpen } from "../open/useStage";
import type { Selector } from "../open/visibility/selectors";
import { useSeeing } from "../open/visibility/useSeeing";
import { useViewState } from "../open/visibility/viewState";
import { tone } from "../style/theme";
import { ColumnsOf, Counts, NAME_PX } from "./FiguresOfRow";
import { useConditions, type useSchedule } from "./useSchedule";

type List = NonNullable<ReturnType<typeof useSchedule>["list"]>;

/** One row: what it is called, how many, and what can be done with it. */
export function RowOfList(props: {
  row: Row;
  list: List;
  chosen: ReadonlySet<number>;
  pick: (more: boolean) => void;
}) {
  const { row, list, chosen, pick } = props;
  const { federation } = useOpen();
  const { steps, set, turn } = useRegister();
  const conditions = useConditions();
  const states = useViewState((s) => s.states);
  const seeing = useSeeing();
  const { fitTo } = useCameraCommands();
  const isGroup = row.kind === "group";
  const depth = isGroup ? row.group.path.length - 1 : row.depth;
  const found = isGroup ? null : find(federation, row.component);
  const name = isGroup ? groupName(row.group, steps) : (found?.model.labels[found.at] ?? "");
  const off = !isGroup && states[row.component] === 0;
  const select = (): Selector =>
    isGroup
      ? selectorOf(row.group.path, steps, conditions, set?.name ?? "")
      : numberingOf(federation).these([row.component]);
  const members = () => (isGroup ? membersOf(row.group, list.groupOf) : [row.component]);
  const on = !isGroup && chosen.has(row.component);
  return (
    <Box
      role="treeitem"
      aria-level={depth + 1}
      aria-expanded={isGroup ? row.open : undefined}
      aria-selected={on}
      data-testid={isGroup ? "register-group" : "register-component"}
      sx={{
        display: "flex",
        alignItems: "center",
        height: "100%",
        pl: depth * 1.25,
        borderBottom: `1px solid ${tone.line}`,
        fontSize: 13,
        bgcolor: on ? `${tone.pick}33` : "transparent",
        "& .acts": { display: "none" },
        "&:hover .acts, &:focus-within .acts": { display: "flex" },
        "&:hover .figures, &:focus-within .figures": { display: "none" },
      }}
    >
      {isGroup ? (
        <Plain label={`${row.open ? "Close" : "Open"} ${name}`} run={() => turn(row.key)}>
          <Box component="span" sx={{ display: "inline-block", width: 14, color: tone.soft }}>
            {row.open ? "▾" : "▸"}
          </Box>
        </Plain>
      ) : (
        <Box component="span" sx={{ width: 14 }} />
      )}
      <Plain label={`Select ${name}`} run={(event) => pick(event.shiftKey)} grow>
        <Box
          component="span"
          sx={{
            color: off ? tone.soft : tone.ink,
            textDecoration: off ? "line-through" : "none",
            overflow: "hidden",
            textOverflow: "ellipsis",
            whiteSpace: "nowrap",
          }}
        >
          {name}
        </Box>
      </Plain>
      {isGroup ? (
        <Counts count={row.group.count} sums={row.group.sums} columns={list.columns} />
      ) : (
        <ColumnsOf component={row.component} columns={list.columns} />
      )}
      <Box className="acts" sx={{ gap: 1, fontSize: 12 }}>
        <Act name="only" about={name} run={() => seeing.only(select())} />
        {off ? (
          <Act name="show" about={name} run={() => seeing.bringBack(select())} />
        ) : (
          <Act name="hide" about={name} run={() => seeing.put("hide", select())} />
        )}
        <Act name="fade" about={name} run={() => seeing.put("fade", select())} />
        <Act name="fit" about={name} run={() => void fitTo({ kind: "components", components: members() })} />
      </Box>
    </Box>
  );
}

function Plain(props: {
  label: string;
  run: (event: React.MouseEvent) => void;
  grow?: boolean;
  children: React.ReactNode;
}) {
  return (
    <Box
      component="button"
      type="button"
      aria-label={props.label}
      onClick={props.run}
      sx={{
        border: 0,
        p: 0,
        bgcolor: "transparent",
        font: "inherit",
        textAlign: "left",
        cursor: "pointer",
        minWidth: 0,
        ...(props.grow ? { flex: `1 1 ${NAME_PX}px`, display: "flex", overflow: "hidden" } : {}),
      }}
    >
      {props.children}
    </Box>
  );
}

function Act({ name, about, run }: { name: string; about: string; run: () => void }) {
  return (
    <Plain label={`${name}: ${about}`} run={run}>
      <Box component="span" sx={{ textDecoration: "underline", textUnderlineOffset: 2 }}>
        {name}
      </Box>
    </Plain>
  );
}
