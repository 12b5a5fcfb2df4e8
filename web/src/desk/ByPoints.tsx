import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import { useTools } from "../actions/tools";
import type { ModelCard } from "../api/client";
import { useCorrections } from "../api/queries";
import { useSession } from "../project/session";
import { useOpen } from "../project/useStage";
import { tone } from "../theme";
import { useAligning, wishOf } from "./alignState";
import { Figures, parsed } from "./Figures";

const WHICH = ["First", "Second"] as const;

/** Align a model by picking two of its points and typing where they belong, in the project's coordinates. */
export function ByPoints({ model }: { model: ModelCard }) {
  const { modelId, points, begin, stop } = useAligning();
  const take = useTools((s) => s.take);
  if (modelId !== model.id) {
    return (
      <Button
        variant="text"
        sx={{ justifySelf: "start" }}
        onClick={() => {
          begin(model.id);
          take("align");
        }}
      >
        pick two of its points
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
          never mind
        </Button>
      </Box>
    );
  }
  return <Places model={model} />;
}

function Places({ model }: { model: ModelCard }) {
  const { federation, projectId } = useOpen();
  const { alignByPoints, align } = useCorrections(projectId);
  const { points, stop } = useAligning();
  const say = useSession((s) => s.say);
  const origin = federation.origin_m;
  const there = points.map((point) => point.map((v, i) => (v + (origin[i] ?? 0)).toFixed(3)));
  const [typed, setTyped] = useState(there);
  const wanted = typed.map((row) => row.map((text, i) => (parsed(text) ?? 0) - (origin[i] ?? 0)));
  const whole = typed.every((row) => row.every((text) => parsed(text) !== null));
  const go = () => {
    const [first, second] = points;
    const [firstPlace, secondPlace] = wanted;
    if (!first || !second || !firstPlace || !secondPlace) return;
    const before = wishOf(model);
    alignByPoints.mutate(
      {
        id: model.id,
        wish: {
          first_m: [...first],
          first_place_m: firstPlace,
          second_m: [...second],
          second_place_m: secondPlace,
        },
      },
      {
        onError: (error) => say(error.message),
        onSuccess: () => {
          stop();
          say(`${model.name} is being aligned anew.`, () => align.mutate({ id: model.id, wish: before }));
        },
      },
    );
  };
  return (
    <Box sx={{ display: "grid", gap: 0.5 }}>
      {WHICH.map((which, k) => (
        <Box key={which}>
          <Box sx={{ fontSize: 13 }}>{which} point goes to</Box>
          <Figures
            labels={["x, m", "y", "z"]}
            about={`of the ${which.toLowerCase()} point`}
            values={typed[k] ?? []}
            set={(row) => setTyped(typed.map((old, i) => (i === k ? row : old)))}
          />
        </Box>
      ))}
      <Box sx={{ display: "flex", gap: 1.5 }}>
        <Button variant="outlined" disabled={!whole} onClick={go}>
          Bring them there
        </Button>
        <Button variant="text" onClick={stop}>
          never mind
        </Button>
      </Box>
    </Box>
  );
}
