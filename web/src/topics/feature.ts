import type { Feature } from "../parts/feature";
import { TopicsOnPlan } from "./TopicsOnPlan";
import { TopicsOnStage } from "./TopicsOnStage";
import { TopicTable } from "./TopicTable";
import { useTopicActions } from "./useTopicActions";

/** Topics, as the page puts them together; their panel of the desk is shared with meetings. */
export const feature: Feature = {
  name: "topics",
  actions: useTopicActions,
  slots: { overStage: [TopicsOnStage], platesOnPlan: [TopicsOnPlan], belowStage: [TopicTable] },
};
