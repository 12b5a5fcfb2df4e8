import { useMemo } from "react";
import { api, taken, type View } from "../api/client";
import { firstLook } from "../camera/firstLook";
import { useLook } from "../camera/useLook";
import { usePerson } from "../people/person";
import { announce } from "../trail/cause";
import { keepView, keptView } from "../trail/left";
import { orAloud, useSession } from "./session";
import { useOpen } from "./useStage";
import { fromView, toView } from "./view";

/** Going home and saying where home is: one's own, else the project's, else the front view. */
export function useHome() {
  const { federation, stage, projectId } = useOpen();
  const person = usePerson((s) => s.name);
  const { fitTo } = useLook();
  return useMemo(() => {
    const say = useSession.getState().say;
    const present = (): View | null => {
      const view = stage();
      const { visibility, picked } = useSession.getState();
      return view ? toView(federation, view.seen, visibility, picked) : null;
    };
    const show = (view: View, eyeAlone: boolean, cause: string, atOnce = false) => {
      const { pose, visibility } = fromView(federation, view);
      if (!eyeAlone) useSession.getState().see(visibility);
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
        else await fitTo({ kind: "all" }, firstLook(federation), "home");
      },
      setOwn: async () => {
        await keepView("home", projectId, person, present());
        say(
          "This view is your home now; others keep theirs.",
          () => void keepView("home", projectId, person, null),
        );
      },
      setForAll: async () => {
        const view = present();
        if (!view) return;
        const before = federation.home;
        const path = { params: { path: { project_id: projectId } } };
        await orAloud(async () => {
          await taken(
            api.PUT("/api/projects/{project_id}/home", { ...path, body: { view, author: person } }),
          );
          say("This view is home for everybody now.", () => {
            if (before) void api.PUT("/api/projects/{project_id}/home", { ...path, body: before });
            else void api.DELETE("/api/projects/{project_id}/home", path);
          });
        });
      },
    };
  }, [federation, stage, projectId, person, fitTo]);
}
