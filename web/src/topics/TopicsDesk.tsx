import { useTopicsShown } from "../open/topics/topicsState";
import { TopicList } from "./TopicList";
import { TopicOpen } from "./TopicOpen";

/** The problems of the project: the list of them, or the one that is open. */
export function TopicsDesk() {
  const opened = useTopicsShown((s) => s.opened);
  return opened ? <TopicOpen key={opened} id={opened} /> : <TopicList />;
}
