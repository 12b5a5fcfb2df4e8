import { useConnection } from "../api/connection";

const underWay = new Set<Promise<unknown>>();

/** Count something that is being done to what is kept, or asked for anew after that, until it is over. */
export function counted<T>(work: Promise<T>): Promise<T> {
  underWay.add(work);
  const over = () => void underWay.delete(work);
  work.then(over, over);
  return work;
}

/** Until all that is being done was done, is shown, and who waited for it has noted it; nobody waits for a server that is away. */
export async function untilAllDone(): Promise<void> {
  while (underWay.size && !useConnection.getState().away) {
    let stop = () => {};
    const away = new Promise<void>((resolve) => {
      stop = useConnection.subscribe((now) => now.away && resolve());
    });
    await Promise.race([Promise.allSettled(underWay), away]);
    stop();
    // What follows on an answer comes before a new task.
    await new Promise((resolve) => setTimeout(resolve));
  }
}
