import { createContext, type ReactNode, useContext } from "react";
import { type Action, useActions } from "./useActions";

const ActionsContext = createContext<readonly Action[]>([]);

/** Makes the list of what can be done once, for all who show it or bind its keys. */
export function WithActions({ children }: { children: ReactNode }) {
  return <ActionsContext value={useActions()}>{children}</ActionsContext>;
}

export function useActionList(): readonly Action[] {
  return useContext(ActionsContext);
}
