import { useEffect, useRef, useState } from "react";
import { useSession } from "../open/session";

/**
 * What is typed over a text that is kept: it stays until it is kept itself, whatever somebody else makes of the text
 * before that. Who leaves the field is told of that, and can take what they typed back.
 */
export function useKeptTyping(what: string, value: string, keep: (text: string) => void) {
  const [typed, setTyped] = useState<string | null>(null);
  const from = useRef(value);
  const sent = useRef(false);
  useEffect(() => {
    if (!sent.current) return;
    // What was kept may be written a little otherwise than it was typed.
    sent.current = false;
    from.current = value;
    setTyped(null);
  }, [value]);
  const type = (text: string) => {
    if (typed === null) from.current = value;
    sent.current = false;
    setTyped(text);
  };
  const done = (text: string) => {
    if (text === value) {
      setTyped(null);
      return;
    }
    if (value !== from.current)
      useSession
        .getState()
        .say(`Someone changed the ${what} to “${value}” while you typed. Yours is saved now.`, () =>
          keep(value),
        );
    // What is typed on is over one's own text, not over somebody else's.
    from.current = text;
    sent.current = true;
    keep(text);
  };
  return { shown: typed ?? value, type, done, giveUp: () => setTyped(null) };
}
