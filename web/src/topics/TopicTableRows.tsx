import Box from "@mui/material/Box";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import TableSortLabel from "@mui/material/TableSortLabel";
import { useVirtualizer } from "@tanstack/react-virtual";
import { type ReactNode, useRef } from "react";
import type { ListRow, Sort, Topic } from "../open/topics/listed";
import { shownColumns, type TopicColumn, useTopicColumns } from "../open/topics/topicColumns";
import { useTopicsShown } from "../open/topics/topicsState";
import { useOpenTopic } from "../open/topics/useOpenTopic";
import { TickBox } from "../parts/TickBox";
import { CUT_OFF, face, tone } from "../style/theme";
import { TickTopic } from "./TickTopic";
import { TopicPicture } from "./TopicPicture";
import { useTopicKeys } from "./useTopicKeys";

const ROW_PX = 33;

/** The rows of the table; only those in sight are on the page. A heading sorts, once more the other way round. */
export function TopicTableRows({ rows }: { rows: readonly ListRow[] }) {
  const scroller = useRef<HTMLDivElement>(null);
  const columns = shownColumns(useTopicColumns((s) => s.columns));
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    getItemKey: (index) => rows[index]?.key ?? index,
    overscan: 10,
  });
  const key = useTopicKeys(rows, scroller, virtual.scrollToIndex);
  const inSight = virtual.getVirtualItems();
  const above = inSight[0]?.start ?? 0;
  const below = virtual.getTotalSize() - (inSight.at(-1)?.end ?? 0);
  const wide = columns.length + 4;
  return (
    <Box ref={scroller} sx={{ overflow: "auto", flex: 1, minHeight: 0 }}>
      <Table
        size="small"
        stickyHeader
        aria-rowcount={rows.length}
        sx={{
          "& input": { display: "block" },
          "& img": { display: "block" },
          "& td, & th": { px: 1, py: 0.25, fontSize: 13, borderColor: tone.line, color: tone.ink },
        }}
      >
        <Head columns={columns} rows={rows} />
        <TableBody>
          <Space px={above} wide={wide} />
          {inSight.map(({ index }) => {
            const row = rows[index];
            if (!row) return null;
            return (
              <TableRow
                key={row.key}
                ref={virtual.measureElement}
                data-index={index}
                hover={row.kind === "topic"}
                onKeyDown={(event) => key(event, index)}
              >
                {row.kind === "group" ? (
                  <TableCell colSpan={wide} sx={{ fontWeight: 600 }}>
                    {row.name} <span style={{ color: tone.soft }}>{row.count}</span>
                  </TableCell>
                ) : (
                  <Cells topic={row.topic} columns={columns} />
                )}
              </TableRow>
            );
          })}
          <Space px={below} wide={wide} />
        </TableBody>
      </Table>
      {!rows.length && <Box sx={{ p: 1.5, color: tone.soft, fontSize: 13 }}>No topic matches.</Box>}
    </Box>
  );
}

/** The room of rows that are not on the page. */
function Space({ px, wide }: { px: number; wide: number }) {
  return px > 0 ? (
    <tr aria-hidden>
      <td colSpan={wide} style={{ height: px, padding: 0, border: 0 }} />
    </tr>
  ) : null;
}

function Head({ columns, rows }: { columns: readonly TopicColumn[]; rows: readonly ListRow[] }) {
  const { ticked, put } = useTopicsShown();
  const all = rows.flatMap((row) => (row.kind === "topic" ? [row.topic.id] : []));
  const on = all.length > 0 && all.every((id) => ticked.includes(id));
  return (
    <TableHead>
      <TableRow>
        <TableCell sx={{ width: 28, bgcolor: tone.paper }}>
          <TickBox label="Tick all topics in the table" on={on} turn={() => put({ ticked: on ? [] : all })} />
        </TableCell>
        <TableCell sx={{ width: 50, bgcolor: tone.paper }} aria-label="Picture" />
        <Heading sort="number">Reference</Heading>
        <Heading sort="title">Title</Heading>
        {columns.map(({ key, name, sort }) => (
          <Heading key={key} {...(sort ? { sort } : {})}>
            {name}
          </Heading>
        ))}
      </TableRow>
    </TableHead>
  );
}

function Heading({ sort, children }: { sort?: Sort; children: ReactNode }) {
  const { sort: now, falling, put } = useTopicsShown();
  const on = sort === now;
  // What changed last stands first where nothing else is asked for.
  const up = (sort === "changed") === falling;
  return (
    <TableCell
      sx={{ bgcolor: tone.paper, fontWeight: 600, whiteSpace: "nowrap" }}
      {...(on ? { sortDirection: up ? "asc" : "desc" } : {})}
    >
      {sort ? (
        <TableSortLabel
          active={on}
          direction={on && !up ? "desc" : "asc"}
          onClick={() => put({ sort, falling: on ? !falling : false })}
        >
          {children}
        </TableSortLabel>
      ) : (
        children
      )}
    </TableCell>
  );
}

function Cells({ topic, columns }: { topic: Topic; columns: readonly TopicColumn[] }) {
  const open = useOpenTopic();
  const opened = useTopicsShown((s) => s.opened === topic.id);
  const mark = opened ? { boxShadow: `inset 3px 0 0 ${tone.here}` } : {};
  return (
    <>
      <TableCell sx={mark}>
        <TickTopic topic={topic} />
      </TableCell>
      <TableCell>
        <TopicPicture topic={topic} />
      </TableCell>
      <TableCell sx={{ fontFamily: face.figure, whiteSpace: "nowrap" }}>{topic.reference}</TableCell>
      <TableCell sx={{ maxWidth: 340 }}>
        <Box
          component="button"
          type="button"
          data-testid="topic"
          onClick={() => open(topic)}
          title={topic.said.title}
          sx={{
            border: 0,
            p: 0,
            bgcolor: "transparent",
            font: "inherit",
            fontWeight: 600,
            color: tone.ink,
            cursor: "pointer",
            textAlign: "left",
            maxWidth: "100%",
            "&:hover": { textDecoration: "underline" },
            ...CUT_OFF,
          }}
        >
          {topic.said.title}
        </Box>
        {topic.new && (
          <Box component="span" sx={{ color: tone.pickInk, ml: 0.75, fontWeight: 600 }}>
            new
          </Box>
        )}
      </TableCell>
      {columns.map(({ key, of }) => (
        <TableCell
          key={key}
          sx={{ maxWidth: 220, ...CUT_OFF, ...(key === "due" && topic.overdue ? { fontWeight: 600 } : {}) }}
          title={of(topic)}
        >
          {of(topic)}
          {key === "due" && topic.overdue && ", overdue"}
        </TableCell>
      ))}
    </>
  );
}
