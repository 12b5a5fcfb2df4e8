import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import type { Sum } from "../open/selections/groups";
import { useUnits } from "../open/units";
import { face, tone } from "../style/theme";
import { type Column, spokenFigure } from "./besideEach";

/** How wide a name is at least where there are columns beside it. */
export const NAME_PX = 82;
const COLUMN_PX = 88;
const COUNT_PX = 36;
/** What opens a group, before its name. */
const OPEN_PX = 14;

/** The least width of rows with so many columns; in a slimmer desk the list is moved sideways. */
export const rowsPx = (columns: number) => OPEN_PX + NAME_PX + COLUMN_PX * columns + COUNT_PX;

const CELL = {
  flex: `1 0 ${COLUMN_PX}px`,
  overflow: "hidden",
  textOverflow: "ellipsis",
  whiteSpace: "nowrap",
  textAlign: "right",
} as const;

/** The sums, and how many; a figure that was worked out from the triangles is marked. Sums are the first columns. */
export function Counts(props: { count: number; sums: readonly Sum[]; columns: readonly Column[] }) {
  const { count, sums, columns } = props;
  const units = useUnits();
  return (
    <Figures columns={columns.length}>
      {columns.map(({ what }, k) => {
        const sum = sums[k];
        if (!sum) return <Box key={what} sx={CELL} />;
        const { value, unit, from_file, from_mesh, without } = sum;
        return (
          <Box
            key={what}
            sx={CELL}
            title={`from the file: ${from_file}, calculated from the triangles: ${from_mesh}, without: ${without}`}
          >
            {from_mesh ? "≈" : ""}
            {from_file + from_mesh ? spokenFigure(value, unit, units) : "—"}
          </Box>
        );
      })}
      <Box sx={{ color: tone.soft, flex: `0 0 ${COUNT_PX}px`, textAlign: "right" }}>{count}</Box>
    </Figures>
  );
}

/** What stands beside a component. */
export function ColumnsOf({ component, columns }: { component: number; columns: readonly Column[] }) {
  const units = useUnits();
  if (!columns.length) return null;
  return (
    <Figures columns={columns.length}>
      {columns.map(({ what, heading, of }) => {
        const { text, figure, worked } = of(component, units);
        return (
          <Box
            key={what}
            data-column={heading}
            title={worked ? `${text}, calculated from the triangles` : text}
            sx={{ ...CELL, ...(figure ? {} : { fontFamily: face.text, fontSize: 12.5 }) }}
          >
            {worked ? "≈" : ""}
            {text || "—"}
          </Box>
        );
      })}
      <Box sx={{ flex: `0 0 ${COUNT_PX}px` }} />
    </Figures>
  );
}

/** What the columns say, above the rows. */
export function ColumnHeads({ columns }: { columns: readonly Column[] }) {
  return (
    <Box
      sx={{ display: "flex", fontSize: 12, color: tone.soft, fontWeight: 600 }}
      data-testid="register-heads"
    >
      <Box sx={{ flex: `1 1 ${NAME_PX + OPEN_PX}px` }} />
      <Figures columns={columns.length}>
        {columns.map(({ what, heading }) => (
          <Box key={what} sx={{ ...CELL, fontFamily: face.text }} title={heading}>
            {heading}
          </Box>
        ))}
        <Box sx={{ flex: `0 0 ${COUNT_PX}px` }} />
      </Figures>
    </Box>
  );
}

/** Figures beside a name: each column takes its share of a wide desk. */
function Figures({ columns, children }: { columns: number; children: ReactNode }) {
  return (
    <Box
      className="figures"
      sx={{
        fontFamily: face.figure,
        fontSize: 12,
        display: "flex",
        whiteSpace: "nowrap",
        flex: `${columns} 0 ${COLUMN_PX * columns + COUNT_PX}px`,
        "& > :not(:last-child)": { pl: 1 },
      }}
    >
      {children}
    </Box>
  );
}
