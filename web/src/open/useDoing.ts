import { type QueryKey, useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";
import { withErrorNotice } from "./session";
import { counted } from "./underWay";

/** How something is done to what a key names: whether it was, and what is shown of it asked for anew. */
export type Doing = (work: () => Promise<unknown>) => Promise<boolean>;

/**
 * Does things to what the key names one after the other, in the order in which they were asked for, from
 * whatever part of the page: so the history has them in that order. What goes wrong is said.
 */
export function useDoing(key: QueryKey): Doing {
  const client = useQueryClient();
  const id = JSON.stringify(key);
  return useMemo(
    () => (work) =>
      counted(
        client
          .getMutationCache()
          .build<boolean, Error, void, unknown>(client, {
            mutationFn: () => withErrorNotice(work),
            scope: { id },
            networkMode: "always",
            onSettled: () => void counted(client.invalidateQueries({ queryKey: JSON.parse(id) })),
          })
          .execute(),
      ),
    [client, id],
  );
}
