import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import { type DeskTask, useSession } from "../project/session";
import { RoutesDesk } from "../routes/RoutesDesk";
import { face, tone } from "../theme";
import { ComponentDesk } from "./ComponentDesk";
import { ModelsDesk } from "./ModelsDesk";
import { ViewpointsDesk } from "./ViewpointsDesk";

const TASKS: readonly (readonly [DeskTask, string])[] = [
  ["component", "Component"],
  ["viewpoints", "Viewpoints"],
  ["routes", "Routes"],
  ["models", "Models"],
];

const BODY: Record<DeskTask, () => ReactNode> = {
  component: () => <ComponentDesk />,
  viewpoints: () => <ViewpointsDesk />,
  routes: () => <RoutesDesk />,
  models: () => <ModelsDesk />,
};

/** One task at a time, behind labelled edges that never disappear. */
export function Desk() {
  const { task, folded, open, fold } = useSession();
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
        <Box sx={{ width: 278, minHeight: 0, overflow: "auto", p: 1.75, pt: 1.25 }} data-testid="desk">
          {BODY[task]()}
        </Box>
      )}
      <Box
        sx={{
          width: 34,
          borderLeft: `1px solid ${tone.line}`,
          bgcolor: "#efebe2",
          display: "flex",
          flexDirection: "column",
        }}
        role="tablist"
      >
        {TASKS.map(([key, label]) => {
          const on = key === task && !folded.desk;
          return (
            <Box
              key={key}
              component="button"
              type="button"
              role="tab"
              aria-selected={on}
              onClick={() => (on ? fold("desk", true) : open(key))}
              sx={{
                border: 0,
                borderBottom: `1px solid ${tone.line}`,
                borderRight: `3px solid ${on ? tone.here : "transparent"}`,
                bgcolor: on ? tone.paper : "transparent",
                writingMode: "vertical-rl",
                py: 1.75,
                px: 0,
                cursor: "pointer",
                fontFamily: face.head,
                fontWeight: 600,
                fontSize: 13,
                color: on ? tone.ink : tone.soft,
                "&:hover": { color: tone.ink },
              }}
            >
              {label}
            </Box>
          );
        })}
        {!folded.desk && (
          <Button
            variant="text"
            onClick={() => fold("desk", true)}
            sx={{
              mt: "auto",
              mb: 1,
              writingMode: "vertical-rl",
              fontSize: 11.5,
              color: tone.soft,
              alignSelf: "center",
            }}
          >
            fold
          </Button>
        )}
      </Box>
    </Box>
  );
}

export function DeskHeading({ children }: { children: ReactNode }) {
  return (
    <Box
      component="h3"
      sx={{
        m: 0,
        mt: 2,
        mb: 0.75,
        fontFamily: face.head,
        fontSize: 12,
        letterSpacing: ".06em",
        color: tone.soft,
        textTransform: "uppercase",
      }}
    >
      {children}
    </Box>
  );
}

export function DeskNote({ children }: { children: ReactNode }) {
  return <Box sx={{ color: tone.soft, fontSize: 13, lineHeight: 1.45 }}>{children}</Box>;
}
