import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { type ReactNode, Suspense } from "react";
import { useHabits } from "../open/habits";
import { useSession } from "../open/session";
import { Divider } from "../parts/Divider";
import { DeskNote } from "../parts/desk";
import { later } from "../parts/later";
import { Unseen } from "../parts/Unseen";
import { enlarged } from "../style/lettering";
import { face, SLIM, tone } from "../style/theme";
import { FEATURES } from "./features";

const PANELS = FEATURES.flatMap(({ desk }) => (desk ? [{ ...desk, Body: later(desk.load) }] : []));

/** Fetch what is not seen at once, so that it is there before the server may be away. */
export function fetchDesks(): void {
  for (const { load } of PANELS) void load().catch(() => undefined);
}

const USUAL_PX = 256;
const MOST_PX = 760;

/** The task in hand, as wide as it was dragged; the stage keeps its share of the window. */
function DeskBody({ children }: { children: ReactNode }) {
  const { deskPx, set } = useHabits();
  return (
    <Box
      sx={{
        position: "relative",
        display: "flex",
        minHeight: 0,
        width: deskPx === null ? USUAL_PX : `min(${deskPx}px, calc(48vw / var(--lettering, 1)))`,
        [SLIM]: { width: deskPx === null ? 240 : `min(${deskPx}px, calc(40vw / var(--lettering, 1)))` },
      }}
    >
      <Divider
        label="Width of the desk, pixels"
        value={deskPx ?? USUAL_PX}
        least={220}
        most={MOST_PX}
        step={40}
        usual={USUAL_PX}
        at={(pane, clientX) => (pane.getBoundingClientRect().right - clientX) / enlarged(pane)}
        put={(px) => set({ deskPx: px === USUAL_PX ? null : px })}
      />
      <Box sx={{ flex: 1, minWidth: 0, minHeight: 0, overflow: "auto", p: 1.5, pt: 1.25 }} data-testid="desk">
        {children}
      </Box>
    </Box>
  );
}

/** One task at a time, behind labelled edges that never disappear. */
export function Desk() {
  const { task, folded, open, fold } = useSession();
  const Body = PANELS.find(({ key }) => key === task)?.Body;
  return (
    <Box
      sx={{
        display: "flex",
        minHeight: 0,
        height: "100%",
        bgcolor: tone.paper,
        borderLeft: `1px solid ${tone.line}`,
      }}
    >
      {!folded.desk && (
        <DeskBody>
          <Suspense fallback={<DeskNote>Loading…</DeskNote>}>{Body && <Body />}</Suspense>
        </DeskBody>
      )}
      <Box
        sx={{
          width: 34,
          borderLeft: `1px solid ${tone.line}`,
          bgcolor: "#efebe2",
          display: "flex",
          flexDirection: "column",
          minHeight: 0,
          overflow: "hidden auto",
          scrollbarWidth: "none",
        }}
      >
        <Box role="tablist" aria-orientation="vertical" sx={{ display: "contents" }}>
          {PANELS.map(({ key, label, useNew = useNothing }) => (
            <Tab
              key={key}
              label={label}
              on={key === task && !folded.desk}
              useNew={useNew}
              open={() => open(key)}
            />
          ))}
        </Box>
        {!folded.desk && (
          <Button
            variant="text"
            onClick={() => fold("desk", true)}
            sx={{
              mt: "auto",
              mb: 1,
              writingMode: "vertical-rl",
              fontSize: 12,
              color: tone.soft,
              alignSelf: "center",
            }}
          >
            Fold
          </Button>
        )}
      </Box>
    </Box>
  );
}

const useNothing = () => 0;

/** How much is new, upright on the edge of its task and short, so that all tasks keep their place. */
const NEW_COUNT = {
  writingMode: "horizontal-tb",
  display: "inline-block",
  minWidth: 15,
  mt: "3px",
  px: "2px",
  fontSize: 11,
  lineHeight: "15px",
  textAlign: "center",
  borderRadius: "8px",
  bgcolor: tone.pickInk,
  color: tone.paper,
} as const;

/** The edge of one task, with how much of it is new. */
function Tab(props: { label: string; on: boolean; useNew: () => number; open: () => void }) {
  const { label, on, useNew, open } = props;
  const count = useNew();
  return (
    <Box
      component="button"
      type="button"
      role="tab"
      aria-selected={on}
      onClick={open}
      sx={{
        border: 0,
        borderBottom: `1px solid ${tone.line}`,
        borderRight: `3px solid ${on ? tone.here : "transparent"}`,
        bgcolor: on ? tone.paper : "transparent",
        writingMode: "vertical-rl",
        // All tasks stand one below the other also in a low window.
        py: "clamp(3px, calc(4.4vh / var(--lettering, 1) - 28px), 14px)",
        px: 0,
        cursor: "pointer",
        fontFamily: face.head,
        fontWeight: 600,
        fontSize: "clamp(10.5px, calc(1.75vh / var(--lettering, 1)), 13px)",
        color: on ? tone.ink : tone.soft,
        "&:hover": { color: tone.ink },
      }}
    >
      {label}
      {count > 0 && (
        <Box component="span" data-testid="tab-new" title={`${count} new`} sx={NEW_COUNT}>
          {count}
          <Unseen> new</Unseen>
        </Box>
      )}
    </Box>
  );
}
