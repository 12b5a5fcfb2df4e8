import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import { useMine } from "../api/queries";
import { type May, type Ties, useMay } from "../open/mine";
import { useOpen } from "../open/useStage";
import { DeskNote } from "./desk";

interface Props extends Ties {
  to: May;
  children: ReactNode;
}

/** What is there only for who may do it in this project. */
export function Only({ to, made, given, children }: Props) {
  return useMay()(to, { made, given }) ? children : null;
}

/** Why one may not do something in this project; nothing to who may, or while that is not known. */
export function WhyNot({ to, made, given }: Omit<Props, "children">) {
  const { projectId } = useOpen();
  const { data } = useMine(projectId);
  if (useMay()(to, { made, given }) || !data) return null;
  return (
    <DeskNote>
      You may {data.said} here, but not {to}. Ask one of those who own the project.
    </DeskNote>
  );
}

/** What everybody sees, and who may not do it sees greyed, with the reason, where that is not said for many at once. */
export function Greyed({ to, made, given, said = false, children }: Props & { said?: boolean }) {
  if (useMay()(to, { made, given })) return children;
  return (
    <Box>
      <Box
        component="fieldset"
        disabled
        sx={{
          border: 0,
          p: 0,
          m: 0,
          minWidth: 0,
          "& input, & textarea, & select, & button": { opacity: 0.6, pointerEvents: "none" },
        }}
      >
        {children}
      </Box>
      {!said && <WhyNot to={to} made={made} given={given} />}
    </Box>
  );
}
