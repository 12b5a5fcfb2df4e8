import { type ComponentType, lazy } from "react";
import { onBack } from "../api/connection";

type Loaded = { default: ComponentType };

/** A part of the page that is fetched when it is needed first; while the server is away it waits for it. */
export function later(load: () => Promise<ComponentType>) {
  const fetched = (): Promise<Loaded> =>
    load().then(
      (part) => ({ default: part }),
      () =>
        new Promise<Loaded>((done) => {
          const off = onBack(() => {
            off();
            done(fetched());
          });
        }),
    );
  return lazy(fetched);
}
