import { noteAway, onBack } from "./connection";

const SOON_MS = 1000;
const LATEST_MS = 30_000;

/**
 * Hears what the server says has changed: `changed` for each kind, and `anew` where something may have been missed. What is
 * refused is asked for again, sooner and then later, as the browser does by itself only for what breaks off. What is
 * returned ends it.
 */
export function hear(address: string, told: { changed(kind: string): void; anew(): void }): () => void {
  let source: EventSource;
  let first = true;
  let pauseMs = SOON_MS;
  let waiting: ReturnType<typeof setTimeout> | undefined;
  const listen = () => {
    clearTimeout(waiting);
    source = new EventSource(address);
    source.addEventListener("changed", (event: MessageEvent<string>) => {
      const { kind }: { kind: string } = JSON.parse(event.data);
      told.changed(kind);
    });
    source.addEventListener("begun", () => {
      // The first one comes while the page fetches everything anyway.
      if (!first) told.anew();
      first = false;
      pauseMs = SOON_MS;
    });
    source.onerror = () => {
      first = false;
      if (source.readyState !== EventSource.CLOSED) {
        noteAway();
        return;
      }
      waiting = setTimeout(listen, pauseMs);
      pauseMs = Math.min(2 * pauseMs, LATEST_MS);
    };
  };
  listen();
  const offBack = onBack(() => {
    told.anew();
    if (source.readyState === EventSource.CLOSED) listen();
  });
  return () => {
    offBack();
    clearTimeout(waiting);
    source.close();
  };
}
