import { create, type StateCreator, type StoreApi, type UseBoundStore } from "zustand";

const ends: (() => void)[] = [];
const begins: ((projectId: string) => void)[] = [];
let opened: string | null = null;

/** A part of a store that outlives a reload of the page, and the name under which the tab keeps it. */
interface Reloaded<T> {
  name: string;
  part: (state: T) => Partial<T>;
  /** Whether it ends when the project is left. */
  untilLeft?: boolean;
}

/**
 * A store for what belongs to one open project; it starts anew when the project is left. What outlives a reload is also there
 * again when the project is opened again in the same tab.
 */
export function perProject<T>(begin: StateCreator<T>, reloaded?: Reloaded<T>): UseBoundStore<StoreApi<T>> {
  const store = create<T>(begin);
  let stop = () => {};
  if (reloaded) {
    const bringBack = (projectId: string) => {
      stop();
      const key = `${reloaded.name} of ${projectId}`;
      const kept = sessionStorage.getItem(key);
      if (kept) store.setState(JSON.parse(kept));
      stop = store.subscribe((state) => sessionStorage.setItem(key, JSON.stringify(reloaded.part(state))));
    };
    begins.push(bringBack);
    // A part of the page that is fetched later than the project was opened.
    if (opened) bringBack(opened);
  }
  ends.push(() => {
    stop();
    if (reloaded?.untilLeft && opened) sessionStorage.removeItem(`${reloaded.name} of ${opened}`);
    stop = () => {};
    store.setState(store.getInitialState(), true);
  });
  return store;
}

/** Do something when the open project is left. */
export function atProjectEnd(end: () => void): void {
  ends.push(end);
}

/** Bring back what this tab kept of a project. */
export function beginProject(projectId: string): void {
  opened = projectId;
  for (const begin of begins) begin(projectId);
}

/** Leave nothing of the open project for the next one. */
export function endProject(): void {
  for (const end of ends) end();
  opened = null;
}
