import { noteAway } from "./connection";
import { Retries } from "./retries";
import { useSignedOut } from "./signedOut";

/**
 * Hears what the server says has changed: `changed` for each kind, and `anew` where something may have been missed. What is
 * refused is asked for again, as the browser does by itself only for what breaks off. What is returned ends it.
 */
export function hear(address: string, told: { changed(kind: string): void; anew(): void }): () => void {
  let source: EventSource;
  let first = true;
  const listen = () => {
    source = new EventSource(address);
    source.addEventListener("changed", (event: MessageEvent<string>) => {
      const { kind }: { kind: string } = JSON.parse(event.data);
      told.changed(kind);
    });
    source.addEventListener("begun", () => {
      // The first one comes while the page fetches everything anyway.
      if (!first) told.anew();
      first = false;
      retries.connected();
    });
    // This sign-in has ended; the page asks who one is, and goes on where one has signed in anew.
    source.addEventListener("ended", () => {
      source.close();
      useSignedOut.getState().note();
      retries.later();
    });
    source.onerror = () => {
      first = false;
      if (source.readyState === EventSource.CLOSED) retries.later();
      else noteAway();
    };
  };
  const retries = new Retries(listen, told.anew);
  listen();
  return () => {
    retries.end();
    source.close();
  };
}
