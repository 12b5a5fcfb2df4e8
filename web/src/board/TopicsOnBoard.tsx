import Box from "@mui/material/Box";
import { inProject } from "../open/origin";
import type { Topic } from "../open/topics/listed";
import { calledMark, openMarked, plateOf, useMarkedTopics } from "../open/topics/useMarkedTopics";
import { useOpen } from "../open/useStage";
import { face, tone } from "../style/theme";
import { LABEL_PX } from "./BoardRow";
import { heightShare, type Row } from "./board";

const HIGH_PX = 15;
/** So far below the top of a row its figures are free, and in its first columns its name with its height. */
const UNDER_PX = 20;
const UNDER_NAME_PX = 37;

/** The share of the board that lies above a row. */
function topOf(rows: readonly Row[], row: number): number {
  const above = rows.slice(0, Math.max(0, row)).reduce((sum, { heightM }) => sum + heightM, 0);
  return above / (rows.reduce((sum, { heightM }) => sum + heightM, 0) || 1);
}

/** Topics as small numbered plates at their heights, in the column of the first discipline that they concern. */
export function TopicsOnBoard({ rows, codes }: { rows: readonly Row[]; codes: readonly string[] }) {
  const { federation } = useOpen();
  const marked = useMarkedTopics();
  const cells = new Map<string, { topics: Topic[]; share: number; top: number; column: number }>();
  for (const { topic, at } of marked) {
    const heightM = inProject(at, federation.origin_m)[2] ?? 0;
    const row = rows.findLastIndex((each) => heightM < each.elevationM + each.heightM);
    const column = codes.indexOf(topic.disciplines[0] ?? "");
    const key = `${row}/${column}`;
    const cell = cells.get(key) ?? {
      topics: [],
      share: heightShare(rows, heightM).share,
      top: topOf(rows, row),
      column,
    };
    cell.topics.push(topic);
    cells.set(key, cell);
  }
  const width = `(100% - ${LABEL_PX}px) / ${Math.max(1, codes.length)}`;
  return [...cells].map(([key, { topics, share, top, column }]) => {
    const several = topics.length > 1;
    const shown = several ? `${topics.length}×` : topics[0] ? plateOf(topics[0]) : "";
    const under = column <= 0 ? UNDER_NAME_PX : UNDER_PX;
    const left = column < 0 ? `${LABEL_PX - 10}px` : `calc(${LABEL_PX}px + ${column + 0.5} * ${width})`;
    return (
      <Box
        key={key}
        component="button"
        type="button"
        data-testid="topic-on-board"
        title={calledMark(topics)}
        aria-label={`${shown}: ${calledMark(topics)}`}
        onClick={() => openMarked(topics)}
        style={{ top: `max(${share * 100}% - ${HIGH_PX / 2}px, ${top * 100}% + ${under}px)`, left }}
        sx={{
          position: "absolute",
          transform: "translateX(-50%)",
          minWidth: HIGH_PX,
          height: HIGH_PX,
          p: 0,
          px: "2px",
          border: `1px solid ${several ? tone.paper : tone.ink}`,
          bgcolor: several ? tone.ink : tone.paper,
          color: several ? tone.paper : tone.ink,
          fontFamily: face.head,
          fontWeight: 600,
          fontSize: 10.5,
          lineHeight: 1,
          cursor: "pointer",
        }}
      >
        {shown}
      </Box>
    );
  });
}
