import { createContext, useContext } from "react";
import type { Action } from "../open/action";

/** The list of what can be done, made once, for all who show it or bind its keys. */
export const ActionsContext = createContext<readonly Action[]>([]);

export function useActionList(): readonly Action[] {
  return useContext(ActionsContext);
}
