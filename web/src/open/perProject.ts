import { create, type StateCreator, type StoreApi, type UseBoundStore } from "zustand";

const ends: (() => void)[] = [];

/** A store for what belongs to one open project; it is Start when the project is left. */
export function perProject<T>(begin: StateCreator<T>): UseBoundStore<StoreApi<T>> {
  const store = create<T>(begin);
  ends.push(() => store.setState(store.getInitialState(), true));
  return store;
}

/** Do something when the open project is left. */
export function atProjectEnd(end: () => void): void {
  ends.push(end);
}

/** Leave nothing of the open project for the next one. */
export function endProject(): void {
  for (const end of ends) end();
}
