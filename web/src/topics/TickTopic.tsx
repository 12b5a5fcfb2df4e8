import type { Topic } from "../open/topics/listed";
import { tickTopic, useTopicsShown } from "../open/topics/topicsState";
import { TickBox } from "../parts/TickBox";

/** The tick of a topic in a list: what is ticked is changed together. */
export function TickTopic({ topic }: { topic: Topic }) {
  const on = useTopicsShown((s) => s.ticked.includes(topic.id));
  return (
    <TickBox
      label={`Tick ${topic.reference}`}
      title="Tick several to change them together"
      on={on}
      turn={() => tickTopic(topic.id)}
    />
  );
}
