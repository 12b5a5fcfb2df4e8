import { useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";
import { answerOf, api, type Shapes, type View, type Viewpoint } from "../../api/client";
import { keys } from "../../api/queries";
import { DELETION } from "../deletion";
import { useSession } from "../session";
import { doAct, isAsLeft } from "../undoLine";
import { useDoing } from "../useDoing";
import { useOpen } from "../useStage";

/** What is done to viewpoints: kept, named, kept over, framed and deleted, each with undo; made for the building, gone through. */
export function useViewpointActs() {
  const { projectId } = useOpen();
  const client = useQueryClient();
  const doing = useDoing(keys.viewpoints(projectId));
  return useMemo(() => {
    const at = (id: string) => ({ params: { path: { viewpoint_id: id } } });
    const of = { params: { path: { project_id: projectId } } };
    const { say } = useSession.getState();
    const now = (id: string) =>
      client.getQueryData<Viewpoint[]>(keys.viewpoints(projectId))?.find((each) => each.id === id);
    const restore = (ids: readonly string[]) =>
      doing(async () => {
        for (const id of ids) await DELETION.viewpoint.restore(id);
      });
    const drop = (ids: readonly string[]) =>
      doing(async () => {
        for (const id of ids) await DELETION.viewpoint.remove(id);
      });
    const name = (id: string, name: string) =>
      doing(() => answerOf(api.PUT("/api/viewpoints/{viewpoint_id}/name", { ...at(id), body: { name } })));
    /** Do what answers with the viewpoint as it is then: what is asked of it next is asked of that, however long the list takes. */
    const become = async (work: () => Promise<Viewpoint>) => {
      let is: Viewpoint | null = null;
      await doing(async () => {
        const after = await work();
        is = after;
        client.setQueryData<Viewpoint[]>(keys.viewpoints(projectId), (all) =>
          all?.map((each) => (each.id === after.id ? { ...each, ...after, of: each.of ?? [] } : each)),
        );
      });
      return is as Viewpoint | null;
    };
    /** Give a viewpoint another view or picture; it is what it was again unless somebody else changed it since. */
    const change = (viewpoint: Viewpoint, act: string, told: string, work: () => Promise<Viewpoint>) => {
      let left: string | undefined;
      return doAct(
        {
          name: act,
          undo: async () => {
            if (!isAsLeft(viewpoint.name, left, now(viewpoint.id)?.changed_at)) return false;
            const back = await become(() =>
              answerOf(api.POST("/api/viewpoints/{viewpoint_id}/take-back", at(viewpoint.id))),
            );
            return back !== null;
          },
          redo: async () => {
            const after = await become(work);
            left = after?.changed_at;
            return after !== null;
          },
        },
        told,
      );
    };
    return {
      /** The viewpoint that was made, or null where it could not be. */
      keep: async (body: Shapes["NewViewpoint"]) => {
        let made: Viewpoint | null = null;
        const keep = () =>
          doing(async () => {
            made = await answerOf(api.POST("/api/projects/{project_id}/viewpoints", { ...of, body }));
          });
        await doAct({
          name: `kept the viewpoint ${body.name}`,
          undo: () => drop(made ? [made.id] : []),
          redo: () => (made ? restore([made.id]) : keep()),
        });
        return made as Viewpoint | null;
      },
      rename: (viewpoint: Viewpoint, wanted: string) =>
        doAct({
          name: `renamed the viewpoint ${viewpoint.name}`,
          undo: async () =>
            isAsLeft(wanted, wanted, now(viewpoint.id)?.name) && name(viewpoint.id, viewpoint.name),
          redo: () => name(viewpoint.id, wanted),
        }),
      remove: (viewpoints: readonly Viewpoint[]) => {
        const ids = viewpoints.map(({ id }) => id);
        const [only, ...more] = viewpoints;
        const called = only && !more.length ? `"${only.name}"` : `${ids.length} viewpoints`;
        return doAct(
          { name: `deleted ${called}`, undo: () => restore(ids), redo: () => drop(ids) },
          `Deleted ${called}.`,
        );
      },
      /** What keeping a view over a viewpoint would change. */
      changes: (id: string, view: View) =>
        answerOf(api.POST("/api/viewpoints/{viewpoint_id}/changes", { ...at(id), body: view })),
      keepOver: (viewpoint: Viewpoint, body: Shapes["ViewToKeep"]) =>
        change(viewpoint, `replaced ${viewpoint.name}`, `${viewpoint.name} is what you see now.`, () =>
          answerOf(api.PUT("/api/viewpoints/{viewpoint_id}/view", { ...at(viewpoint.id), body })),
        ),
      reframe: (viewpoint: Viewpoint, body: Shapes["Reframed"]) =>
        change(viewpoint, `framed ${viewpoint.name}`, `${viewpoint.name} has another frame.`, () =>
          answerOf(api.PUT("/api/viewpoints/{viewpoint_id}/picture", { ...at(viewpoint.id), body })),
        ),
      becomeEarlier: (viewpoint: Viewpoint, earlier: string) =>
        change(
          viewpoint,
          `restored an earlier view of ${viewpoint.name}`,
          `${viewpoint.name} is an earlier view again.`,
          () =>
            answerOf(
              api.POST("/api/viewpoints/{viewpoint_id}/earlier/{earlier_id}", {
                params: { path: { viewpoint_id: viewpoint.id, earlier_id: earlier } },
              }),
            ),
        ),
      makeStanding: () =>
        doing(async () => {
          await answerOf(api.POST("/api/projects/{project_id}/viewpoints/standing", of));
          say("The standing views are being made. Pictures follow as they are drawn.");
        }),
      look: () => doing(() => answerOf(api.POST("/api/projects/{project_id}/viewpoints/looked", of))),
    };
  }, [client, doing, projectId]);
}
