import { useCallback } from "react";
import type { Shapes } from "../api/client";
import { usePerson } from "../api/person";
import { useMine } from "../api/queries";
import { useOpen } from "./useStage";

/** What there is to do in a project, in the words of a person who may. */
export type May = Shapes["Action"];

/** What ties one to a thing: who made it, and to whom it was given. */
export interface Ties {
  made?: string | undefined;
  given?: readonly (string | null | undefined)[] | undefined;
}

/** Whether one may do something in the open project, to a thing that one has ties to. Nothing until that is known. */
export function useMay(): (to: May, ties?: Ties) => boolean {
  const { projectId } = useOpen();
  const { data } = useMine(projectId);
  const name = usePerson((s) => s.name);
  return useCallback(
    (to, { made, given = [] } = {}) => {
      if (!data) return false;
      const mine = (each: string | null | undefined) =>
        each?.trim().toLowerCase() === name.trim().toLowerCase();
      return (
        data.may.includes(to) ||
        (data.may_made.includes(to) && mine(made)) ||
        (data.may_given.includes(to) && given.some(mine))
      );
    },
    [data, name],
  );
}
