import { useRef } from "react";
import type { Action } from "../open/action";
import { useMay } from "../open/mine";
import { FEATURES } from "./features";

const NONE: readonly Action[] = [];

/** Every action of an open project: each feature brings its own; the same list for as long as they are the same. */
export function useAllActions(): readonly Action[] {
  const known = useRef<readonly Action[]>(NONE);
  const may = useMay();
  const now: Action[] = [];
  // The features and their order never change, so neither do the hooks.
  for (const feature of FEATURES)
    now.push(...(feature.actions?.() ?? NONE).filter(({ needs }) => needs === undefined || may(needs)));
  const same = now.length === known.current.length && now.every((each, i) => each === known.current[i]);
  if (!same) known.current = now;
  return known.current;
}
