const underWay = new Set<Promise<unknown>>();

/** Count something that is being done to what is kept until it was done. */
export function counted<T>(work: Promise<T>): Promise<T> {
  underWay.add(work);
  const over = () => void underWay.delete(work);
  work.then(over, over);
  return work;
}

/** Until all that is being done was done, and who waited for it has noted it. */
export async function untilAllDone(): Promise<void> {
  while (underWay.size) {
    await Promise.allSettled(underWay);
    // What follows on an answer comes before a new task.
    await new Promise((resolve) => setTimeout(resolve));
  }
}
