import { feature as actions } from "../actions/feature";
import { feature as beside } from "../beside/feature";
import { feature as bin } from "../bin/feature";
import { feature as camera } from "../camera/feature";
import { feature as component } from "../component/feature";
import { feature as cuts } from "../cuts/feature";
import { feature as findings } from "../findings/feature";
import { feature as keyplan } from "../keyplan/feature";
import { feature as markups } from "../markups/feature";
import { feature as measures } from "../measures/feature";
import { feature as models } from "../models/feature";
import { useNewTopics } from "../open/topics/useTopics";
import type { Feature } from "../parts/feature";
import { feature as pointing } from "../pointing/feature";
import { feature as register } from "../register/feature";
import { feature as routes } from "../routes/feature";
import { feature as together } from "../together/feature";
import { feature as topics } from "../topics/feature";
import { feature as tours } from "../tours/feature";
import { feature as trail } from "../trail/feature";
import { feature as viewpoints } from "../viewpoints/feature";
import { feature as visibility } from "../visibility/feature";
import { feature as walk } from "../walk/feature";

/** Topics and meetings share a panel of the desk. */
const topicsAndMeetings: Feature = {
  name: "topics and meetings",
  desk: {
    key: "topics",
    label: "Topics",
    load: () => import("./TopicsTask").then((m) => m.TopicsTask),
    useNew: useNewTopics,
  },
};

/** Every feature of the page, in the order in which they are drawn over the stage and stand on the desk. */
export const FEATURES: readonly Feature[] = [
  beside,
  keyplan,
  walk,
  camera,
  trail,
  component,
  register,
  cuts,
  measures,
  markups,
  findings,
  viewpoints,
  topicsAndMeetings,
  routes,
  topics,
  together,
  visibility,
  models,
  tours,
  bin,
  pointing,
  actions,
];
