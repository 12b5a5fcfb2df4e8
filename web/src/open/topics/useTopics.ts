import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";
import { answerOf, api, type Shapes } from "../../api/client";
import { keys } from "../../api/queries";
import { DELETION } from "../deletion";
import { useSession } from "../session";
import { doAct, noteAct } from "../undoLine";
import { useDoing } from "../useDoing";
import { useOpen } from "../useStage";
import { changedSince, changeManyName, changeName, inverse } from "./inverse";
import type { Topic } from "./listed";

/** The project's topics, by number. */
export function useTopics() {
  const { projectId } = useOpen();
  return useQuery({
    queryKey: keys.topics(projectId),
    queryFn: () =>
      answerOf(api.GET("/api/projects/{project_id}/topics", { params: { path: { project_id: projectId } } })),
  });
}

/** How many topics others made or changed since this person looked at them. */
export function useNewTopics(): number {
  return useTopics().data?.filter((topic) => topic.new).length ?? 0;
}

/** A topic with everything that was written and changed. */
export function useTopic(id: string) {
  const { projectId } = useOpen();
  return useQuery({
    queryKey: [...keys.topics(projectId), id],
    queryFn: () => answerOf(api.GET("/api/topics/{topic_id}", { params: { path: { topic_id: id } } })),
  });
}

/** How the project's topics are called, which statuses they may have, and what is offered. */
export function useTopicRules() {
  const { projectId } = useOpen();
  return useQuery({
    queryKey: [...keys.topics(projectId), "rules"],
    queryFn: () =>
      answerOf(
        api.GET("/api/projects/{project_id}/topic-rules", { params: { path: { project_id: projectId } } }),
      ),
  });
}

const NO_STATUSES: readonly Shapes["TopicStatus"][] = [];

/** The statuses that topics may have, and which may follow which. */
export function useStatuses(): readonly Shapes["TopicStatus"][] {
  return useTopicRules().data?.statuses ?? NO_STATUSES;
}

/** What a topic begins with where nothing else is wished for. */
const BLANK = {
  description: "",
  kind: "",
  status: "",
  priority: "",
  assigned_to: "",
  labels: [],
  stage: "",
  views: [],
  disciplines: [],
  variant_of: "",
  finding: null,
};

/** Making topics, changing them, writing of them, and deleting them with undo. */
export function useTopicActs() {
  const { projectId } = useOpen();
  const client = useQueryClient();
  const doing = useDoing(keys.topics(projectId));
  return useMemo(() => {
    const at = (id: string) => ({ params: { path: { topic_id: id } } });
    const { say } = useSession.getState();
    const topicNow = (id: string) =>
      client.getQueryData<Topic[]>(keys.topics(projectId))?.find((each) => each.id === id);
    const put = (id: string, body: Shapes["TopicRequest"]) =>
      doing(() => answerOf(api.PATCH("/api/topics/{topic_id}", { ...at(id), body })));
    const putMany = (changes: Shapes["OneTopicChange"][]) =>
      doing(() =>
        answerOf(
          api.POST("/api/projects/{project_id}/topics/changes", {
            params: { path: { project_id: projectId } },
            body: { changes },
          }),
        ),
      );
    const restore = (id: string) => doing(() => DELETION.topic.restore(id));
    const drop = (id: string) =>
      doing(async () => {
        await DELETION.topic.remove(id);
        // The list to which one goes back has it no more, however long it takes to be fetched.
        client.setQueryData<Topic[]>(keys.topics(projectId), (all) => all?.filter((each) => each.id !== id));
      });
    return {
      /** The topic that was made, or null where it could not be. */
      make: async (wish: Pick<Shapes["NewTopic"], "title"> & Partial<Shapes["NewTopic"]>) => {
        let made: Topic | null = null;
        await doing(async () => {
          made = await answerOf(
            api.POST("/api/projects/{project_id}/topics", {
              params: { path: { project_id: projectId } },
              body: { ...BLANK, ...wish },
            }),
          );
        });
        // TypeScript does not see that the work above sets it.
        const topic = made as Topic | null;
        if (topic)
          noteAct({
            name: `made ${topic.reference}`,
            undo: () => drop(topic.id),
            redo: () => restore(topic.id),
          });
        return topic;
      },
      change: async (id: string, body: Shapes["TopicRequest"]) => {
        const before = topicNow(id);
        if (!(await put(id, body))) return false;
        if (before)
          noteAct({
            name: changeName(before, body),
            undo: async () => {
              const now = topicNow(id);
              const other = now && changedSince(before, body, now);
              if (!other) return put(id, inverse(before, body));
              say(`${now.changed_by} changed the ${other} of ${now.reference} since. It stays as it is.`);
              return false;
            },
            redo: () => put(id, body),
          });
        return true;
      },
      /** Change several topics at once, all of them or none. */
      changeMany: async (topics: readonly Topic[], body: Shapes["TopicRequest"]) => {
        if (!(await putMany(topics.map(({ id }) => ({ topic: id, change: body }))))) return false;
        const [only, ...more] = topics;
        if (only)
          noteAct({
            name: more.length ? changeManyName(topics.length, body) : changeName(only, body),
            undo: async () => {
              const own = topics.filter((before) => {
                const now = topicNow(before.id);
                return now && !changedSince(before, body, now);
              });
              const others = topics.length - own.length;
              if (others) say(`Others changed ${others} of these topics since. They stay as they are.`);
              return own.length > 0 && putMany(own.map((t) => ({ topic: t.id, change: inverse(t, body) })));
            },
            redo: () => putMany(topics.map(({ id }) => ({ topic: id, change: body }))),
          });
        return true;
      },
      write: (id: string, text: string, view: string | null) =>
        doing(() =>
          answerOf(api.POST("/api/topics/{topic_id}/comments", { ...at(id), body: { text, view } })),
        ),
      ask: (id: string, body: Shapes["NewQuestion"]) =>
        doing(() => answerOf(api.PUT("/api/topics/{topic_id}/question", { ...at(id), body }))),
      answer: (id: string, body: Shapes["NewAnswer"]) =>
        doing(() => answerOf(api.PUT("/api/topics/{topic_id}/answer", { ...at(id), body }))),
      setRules: (body: Shapes["TopicRules"]) =>
        doing(() =>
          answerOf(
            api.PUT("/api/projects/{project_id}/topic-rules", {
              params: { path: { project_id: projectId } },
              body,
            }),
          ),
        ),
      look: (id: string) => doing(() => answerOf(api.POST("/api/topics/{topic_id}/looked", at(id)))),
      remove: (topic: Topic) =>
        doAct(
          {
            name: `deleted ${topic.reference}`,
            undo: () => restore(topic.id),
            redo: () => drop(topic.id),
          },
          `Deleted ${topic.reference}.`,
        ),
    };
  }, [client, doing, projectId]);
}
