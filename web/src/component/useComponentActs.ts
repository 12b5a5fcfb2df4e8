import { answerOf, api, type Component } from "../api/client";
import { numberingOf, theseOf } from "../open/numbering";
import { useSelection } from "../open/selection";
import { useSession, withErrorNotice } from "../open/session";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { counted } from "../parts/words";
import { asText } from "./asText";

/** Picks all that hangs together with a component. */
export function usePickRun() {
  const { federation } = useOpen();
  return (component: Pick<Component, "model_id" | "global_id">) =>
    withErrorNotice(async () => {
      const { say } = useSession.getState();
      const path = { model_id: component.model_id, global_id: component.global_id };
      const run = await answerOf(
        api.GET("/api/models/{model_id}/components/{global_id}/run", { params: { path } }),
      );
      const numbers = numberingOf(federation).numbersOf(theseOf(run.components));
      if (numbers.length < 2) return say("Nothing is connected to this component.");
      useSelection.getState().pick(numbers);
      say(
        `${counted(numbers.length, "component")} are connected${run.by_touch ? ", some only by touching" : " in the file"}.`,
      );
    });
}

/** Copies what a component is as plain text. */
export function useCopyText() {
  const units = useUnits();
  return (component: Component) =>
    withErrorNotice(async () => {
      // Browsers give pages the clipboard at this machine's own address, or over https.
      if (!navigator.clipboard)
        throw new Error(
          "This browser does not allow copying here. Open the page over https or at localhost.",
        );
      await navigator.clipboard.writeText(asText(component, units));
      useSession.getState().say(`${component.tag || component.name || "The component"} copied as text.`);
    });
}
