import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { type FormEvent, useEffect, useState } from "react";
import type { ModelCard } from "../api/client";
import { onStage, shifted } from "../open/origin";
import { useSession } from "../open/session";
import { useTools } from "../open/tools";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { Figures } from "../parts/Figures";
import { tone } from "../style/theme";
import { placeOf, useAligning } from "./alignState";
import { alignTool } from "./alignTool";
import { useAlign } from "./useAlign";

const WHICH = ["First", "Second"] as const;

/** Align a model by picking two of its points and typing where they belong, in the project's coordinates. */
export function ByPoints({ model }: { model: ModelCard }) {
  const { modelId, placed, points, begin, stop } = useAligning();
  const take = useTools((s) => s.take);
  const say = useSession((s) => s.say);
  const now = placeOf(model);
  useEffect(() => {
    if (modelId !== model.id || placed === now) return;
    stop();
    take(null);
    say(`${model.name} was aligned again by someone else. Pick its points again.`);
  }, [modelId, model.id, model.name, placed, now, stop, take, say]);
  if (modelId !== model.id) {
    return (
      <Button
        variant="text"
        sx={{ justifySelf: "start" }}
        onClick={() => {
          begin(model.id, now);
          take(alignTool(model));
        }}
      >
        Pick two points
      </Button>
    );
  }
  if (points.length < 2) {
    return (
      <Box sx={{ color: tone.here }}>
        Click the {WHICH[points.length]?.toLowerCase()} point of {model.name} on the stage.{" "}
        <Button
          variant="text"
          onClick={() => {
            stop();
            take(null);
          }}
        >
          Cancel
        </Button>
      </Box>
    );
  }
  return <Places model={model} />;
}

function Places({ model }: { model: ModelCard }) {
  const { federation } = useOpen();
  const { byPoints } = useAlign(model);
  const units = useUnits();
  const { points, stop } = useAligning();
  const origin = federation.origin_m;
  const there = points.map((point) => shifted(point, origin).map((v) => units.typed(v)));
  const [typed, setTyped] = useState(there);
  const wanted = typed.map((row) =>
    onStage(
      row.map((text) => units.parse(text) ?? 0),
      origin,
    ).toArray(),
  );
  const wrong = units.wrong(typed.flat());
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const [first, second] = points;
    const [firstPlace, secondPlace] = wanted;
    if (wrong || !first || !second || !firstPlace || !secondPlace) return;
    byPoints(
      {
        first_m: [...first],
        first_place_m: firstPlace,
        second_m: [...second],
        second_place_m: secondPlace,
      },
      stop,
    );
  };
  return (
    <Box component="form" onSubmit={submit} sx={{ display: "grid", gap: 0.5 }}>
      {WHICH.map((which, k) => (
        <Box key={which}>
          <Box sx={{ fontSize: 13 }}>{which} point goes to</Box>
          <Figures
            labels={[`x, ${units.sign}`, "y", "z"]}
            parse={units.parse}
            about={`of the ${which.toLowerCase()} point`}
            values={typed[k] ?? []}
            set={(row) => setTyped(typed.map((old, i) => (i === k ? row : old)))}
          />
        </Box>
      ))}
      {wrong && <Box sx={{ color: tone.wrong }}>{wrong}</Box>}
      <Box sx={{ display: "flex", gap: 1.5 }}>
        <Button type="submit" variant="outlined" disabled={wrong !== ""}>
          Align by these points
        </Button>
        <Button variant="text" onClick={stop}>
          Cancel
        </Button>
      </Box>
    </Box>
  );
}
