import Box from "@mui/material/Box";
import { useEffect, useState } from "react";
import { follow, present, presenterOf, presentsNow, useTogether } from "../open/together/togetherState";
import { Mark } from "../parts/Mark";
import { tone } from "../style/theme";
import { useLine } from "./useLine";
import { useLookingAway } from "./useLookingAway";
import { usePresenting } from "./usePresenting";

const READ_MS = 7000;

/** Following and presenting, as it is said over the stage: who presents, whether one follows, what was just done. */
export function TogetherOnStage() {
  useLine();
  usePresenting();
  useLookingAway();
  const state = useTogether();
  const presenter = presenterOf(state);
  const presents = presentsNow(state);
  const others = state.people.filter(({ follows }) => follows).length;
  return (
    <Box
      data-testid="together"
      sx={{
        position: "absolute",
        right: 12,
        bottom: 52,
        display: "grid",
        gap: 0.5,
        justifyItems: "end",
        "& > *": { pointerEvents: "auto" },
      }}
    >
      <LastDone />
      {presents && (
        <Mark
          text={`You present; ${others === 0 ? "nobody follows" : others === 1 ? "1 follows" : `${others} follow`}.`}
          act="Stop presenting"
          onAct={() => present(false)}
        />
      )}
      {presenter && !state.following && (
        <Mark text={`${presenter.name} presents.`} act="Follow (Shift F)" onAct={() => follow(true)} />
      )}
      {presenter && state.following && !state.away && (
        <Mark text={`You follow ${presenter.name}.`} act="Look away" onAct={() => follow(false)} />
      )}
      {presenter && state.following && state.away && (
        <Mark
          text={`You stopped looking with ${presenter.name}.`}
          act="Come back (Shift F)"
          onAct={() => follow(true)}
          more={{ act: "Stop following", onAct: () => follow(false) }}
        />
      )}
    </Box>
  );
}

/** What was done last, for as long as it takes to read. */
function LastDone() {
  const did = useTogether((s) => s.did);
  const [read, setRead] = useState(0);
  useEffect(() => {
    if (!did) return;
    const timer = window.setTimeout(() => setRead(did.number), READ_MS);
    return () => window.clearTimeout(timer);
  }, [did]);
  if (!did || did.number === read) return null;
  return (
    <Box
      role="status"
      data-testid="did"
      sx={{ bgcolor: tone.ink, color: tone.paper, px: 1.25, py: 0.4, fontSize: 13, maxWidth: 420 }}
    >
      <b>{did.name}</b> {did.text}
    </Box>
  );
}
