import { useCallback, useEffect, useRef, useState } from "react";
import { usePerson } from "../api/person";
import { useDraft } from "../open/drafts";
import { isAway, notWhenBack, whenBack } from "../open/resending";
import { useSession } from "../open/session";

/** How far a text that was typed is: `said` it is what is kept, which the page may not have heard yet. */
export type Typed = "typed" | "saving" | "waiting" | "refused" | "said";

interface Draft {
  text: string;
  /** The text over which it is typed. */
  over: string;
  state: Typed;
}

/** What one field of one thing holds. */
export interface KeptField {
  /** Names the field among all of the project. */
  field: string;
  /** What it is called in a sentence. */
  what: string;
  value: string;
  /** Who changed the thing last, of a thing that others change too. */
  by?: string;
  /** Keep a text that was typed over another; false, or a promise of it, where that could not be done. */
  keep: (text: string, over: string) => unknown;
}

const SHORT = 120;
const short = (text: string) => (text.length > SHORT ? `${text.slice(0, SHORT)}…` : text);

/**
 * What is typed over a text that is kept: it stays until it is kept itself, whatever somebody else makes of the text before
 * that, also while the server is away and after a reload. Of two who write one text both are told, and can take either.
 */
export function useKeptTyping({ field, what, value, by, keep }: KeptField) {
  const [draft, put] = useDraft<Draft | null>(`field ${field}`, null);
  const say = useSession((s) => s.say);
  /** What this page had kept last, as the server wrote it. */
  const mine = useRef<string | null>(null);
  const [saved, setSaved] = useState(false);
  const heard = useRef(false);
  const now = useRef({ draft, value, keep });
  now.current = { draft, value, keep };
  const seen = useRef(value);
  const save = useCallback(
    async (text: string, over: string) => {
      put({ text, over: text, state: "saving" });
      mine.current = null;
      heard.current = false;
      setSaved(false);
      notWhenBack(field);
      const done = (await now.current.keep(text, over)) !== false;
      const typedOn = now.current.draft?.text !== text;
      if (typedOn) return;
      if (done) {
        setSaved(true);
        put(heard.current ? null : { text, over: text, state: "said" });
        return;
      }
      const away = isAway();
      put({ text, over, state: away ? "waiting" : "refused" });
      if (away) whenBack(field, () => save(text, over));
    },
    [field, put],
  );
  useEffect(() => {
    if (seen.current === value) return;
    seen.current = value;
    const { draft } = now.current;
    if (draft?.state === "said" || draft?.state === "saving") {
      // What was kept may be written a little otherwise than it was typed.
      mine.current = value;
      heard.current = true;
      if (draft.state === "said") put(null);
      return;
    }
    const before = mine.current;
    mine.current = null;
    setSaved(false);
    if (before === null || draft || !by || by === usePerson.getState().name) return;
    say(
      `${by} changed the ${what} to “${short(value)}” after you saved “${short(before)}”.`,
      () => save(before, value),
      "Take mine",
    );
  }, [value, by, what, put, say, save]);
  // What could not be kept before a reload is kept now, unless somebody wrote something else meanwhile.
  useEffect(() => {
    const { draft, value } = now.current;
    if (draft?.state === "waiting" || draft?.state === "saving") {
      if (draft.text !== value && draft.over === value) void save(draft.text, draft.over);
      else if (draft.text !== value) put({ ...draft, state: "typed" });
      else put(null);
    } else if (draft?.state === "said") put(null);
  }, [put, save]);
  const type = (text: string) => {
    setSaved(false);
    put({ text, over: draft && draft.state !== "said" ? draft.over : value, state: "typed" });
  };
  const giveUp = () => {
    notWhenBack(field);
    put(null);
  };
  const done = (text: string) => {
    // What is on its way, or could not be kept, is not sent again by leaving its field.
    if (draft && draft.state !== "typed" && draft.text === text) return;
    if (text === value && draft?.state !== "saving") {
      giveUp();
      return;
    }
    if (draft && value !== draft.over)
      say(
        `${by || "Someone"} changed the ${what} to “${short(value)}” while you typed. Yours is saved now.`,
        () => save(value, text),
        "Take theirs",
      );
    void save(text, draft?.over ?? value);
  };
  return {
    shown: draft?.text ?? value,
    state: draft?.state ?? (saved ? ("said" as const) : null),
    type,
    done,
    giveUp,
  };
}
