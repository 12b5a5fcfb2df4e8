import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import type { View, Viewpoint } from "../api/client";
import { useSession, withErrorNotice } from "../open/session";
import { useViewpointActs } from "../open/views/useViewpointActs";
import { usePresentDocument, usePresentView } from "../open/views/viewpoints";
import { DeskActs } from "../parts/desk";
import { tone } from "../style/theme";

/** Keeps what is seen over a viewpoint, once what that changes was read. */
export function KeepOver({ viewpoint }: { viewpoint: Viewpoint }) {
  const seen = usePresentDocument();
  const drawn = usePresentView();
  const { changes, keepOver } = useViewpointActs();
  const [told, setTold] = useState<{ says: readonly string[]; of: View } | null>(null);
  const ask = () =>
    withErrorNotice(async () => {
      const of = seen();
      if (of) setTold({ says: await changes(viewpoint.id, of), of });
    });
  if (!told)
    return (
      <Button variant="text" onClick={() => void ask()}>
        Replace with this view
      </Button>
    );
  const keep = async () => {
    // What was read is what is kept.
    if (JSON.stringify(seen()) !== JSON.stringify(told.of)) {
      useSession.getState().say("The view has changed. Review the differences again.");
      await ask();
      return;
    }
    const now = drawn();
    if (now && (await keepOver(viewpoint, now))) setTold(null);
  };
  return (
    <Box data-testid="keep-over" sx={{ width: "100%", borderLeft: `3px solid ${tone.here}`, pl: 1, my: 0.5 }}>
      {told.says.length ? (
        told.says.map((sentence) => <Box key={sentence}>{sentence}</Box>)
      ) : (
        <Box>Only the picture would change.</Box>
      )}
      <DeskActs>
        <Button variant="text" onClick={() => void keep()}>
          Replace {viewpoint.name}
        </Button>
        <Button variant="text" onClick={() => setTold(null)}>
          Cancel
        </Button>
      </DeskActs>
    </Box>
  );
}
