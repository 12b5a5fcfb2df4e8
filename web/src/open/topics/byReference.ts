import type { Topic } from "./listed";

const bare = (text: string) => text.toLowerCase().replace(/[^a-z0-9]+/g, "");

/** The topic that is meant by a reference as it is typed: whole, or by its number and variant alone. */
export function byReference(topics: readonly Topic[], typed: string): Topic | undefined {
  const wanted = bare(typed);
  if (!wanted) return undefined;
  const short = wanted.replace(/^0+/, "");
  return (
    topics.find((topic) => bare(topic.reference) === wanted) ??
    topics.find((topic) => `${topic.number}${topic.variant}` === short)
  );
}
