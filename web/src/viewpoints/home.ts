import { useMemo } from "react";
import { answerOf, api, type Shapes, type View } from "../api/client";
import { usePerson } from "../api/person";
import { fromView } from "../open/document";
import { firstLook } from "../open/looking/firstLook";
import { useCameraCommands } from "../open/looking/useCameraCommands";
import { useSession, withErrorNotice } from "../open/session";
import { announce } from "../open/trail/cause";
import { doAct } from "../open/undoLine";
import { useOpen } from "../open/useStage";
import { keepView, keptView } from "../open/views/left";
import { usePresentDocument } from "../open/views/viewpoints";
import { EVERYTHING, useViewState } from "../open/visibility/viewState";

/** Going home and saying where home is: one's own, else the project's, else the front view. */
export function useHome() {
  const { federation, stage, projectId } = useOpen();
  const person = usePerson((s) => s.name);
  const { fitTo } = useCameraCommands();
  const present = usePresentDocument();
  return useMemo(() => {
    const say = useSession.getState().say;
    const show = (view: View, eyeAlone: boolean, cause: string, atOnce = false) => {
      const { pose, look } = fromView(federation, view);
      if (!eyeAlone) useViewState.getState().see(look, cause);
      announce(cause);
      stage()?.go(pose, atOnce);
    };
    return {
      show,
      present,
      go: async (eyeAlone: boolean) => {
        const own = await keptView("home", projectId, person);
        const home = own ?? federation.home?.view;
        if (home) show(home, eyeAlone, own ? "own home" : "home");
        else {
          // Without one of its own, home is how the project is opened first: everything, from the front.
          if (!eyeAlone) useViewState.getState().see(EVERYTHING, "home");
          await fitTo({ kind: "all" }, { ...firstLook(federation), cause: "home" });
        }
      },
      setOwn: async () => {
        const [before, view] = [await keptView("home", projectId, person), present()];
        const put = (home: View | null = null) => keepView("home", projectId, person, home).then(() => true);
        await doAct(
          { name: "saved your home view", undo: () => put(before), redo: () => put(view) },
          "Saved as your home view. Others keep their own.",
        );
      },
      forgetOwn: async () => {
        const own = await keptView("home", projectId, person);
        if (!own) return say("You have no home view. The project's home view is used, else the front view.");
        const put = (home: View | null) => keepView("home", projectId, person, home).then(() => true);
        await doAct(
          { name: "deleted your home view", undo: () => put(own), redo: () => put(null) },
          "Your home view is deleted. The project's home view is used, else the front view.",
        );
      },
      setForAll: async () => {
        const view = present();
        if (!view) return;
        const before = federation.home;
        const path = { params: { path: { project_id: projectId } } };
        const put = (view: Shapes["View"]) =>
          withErrorNotice(() =>
            answerOf(api.PUT("/api/projects/{project_id}/home", { ...path, body: { view } })),
          );
        const drop = () =>
          withErrorNotice(() => answerOf(api.DELETE("/api/projects/{project_id}/home", path)));
        await doAct(
          {
            name: "saved the project's home view",
            undo: () => (before ? put(before.view) : drop()),
            redo: () => put(view),
          },
          "Saved as the project's home view.",
        );
      },
    };
  }, [federation, stage, projectId, person, fitTo, present]);
}
