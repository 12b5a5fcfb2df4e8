import Box from "@mui/material/Box";
import type { Topic } from "../open/topics/listed";
import { tickTopic, useTopicsShown } from "../open/topics/topicsState";
import { tone } from "../style/theme";

/** The tick of a topic in a list: what is ticked is changed together. */
export function TickTopic({ topic }: { topic: Topic }) {
  const on = useTopicsShown((s) => s.ticked.includes(topic.id));
  return (
    <Box
      component="input"
      type="checkbox"
      aria-label={`Tick ${topic.reference}`}
      title="Tick several to change them together"
      checked={on}
      onChange={() => tickTopic(topic.id)}
      sx={{ m: 0, flex: "none", accentColor: tone.ink }}
    />
  );
}
