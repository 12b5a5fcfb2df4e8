import type { Federation, Shapes } from "../../api/client";
import { onBack } from "../../api/connection";
import { usePerson } from "../../api/person";
import { fetchResolved, type Resolved, type RuleLine } from "../../api/resolved";
import { numberingOf } from "../numbering";
import { perProject } from "../perProject";
import { useSession } from "../session";
import { expected, HIDDEN, SHOWN } from "./expected";
import { type History, stepped, withStep } from "./history";
import { tooManyPlanes, withinPlanes } from "./planes";

export type Rule = Shapes["Rule"];
export type { RuleLine };
export type Cut = Shapes["Cut"];
export type Measure = Shapes["Measure"];
export type Markup = Shapes["Markup"];
export type Style = Shapes["View"]["style"];
type These = Shapes["These"];
type Wish = Pick<Rule, "select" | "effect"> & { colour?: string | null; why?: string };

/** What is wished for as a rule, by whom and when. */
export const ruleOf = (wish: Wish): Rule & { at: string } => ({
  by: usePerson.getState().name,
  at: new Date().toISOString(),
  why: "",
  off: false,
  ...wish,
});

/**
 * All of what is seen but the eye: what rules show, fade, hide and tint, what is cut, measured and marked, how far
 * the view reaches, and in which style it is drawn.
 */
export interface Look {
  rules: readonly Rule[];
  depthM: number | null;
  cuts: readonly Cut[];
  /** What no cut goes through. */
  whole: These["of"];
  measures: readonly Measure[];
  style: Style;
  markups: readonly Markup[];
  /** Pictures in space that another program put into the view. */
  pictures: readonly Shapes["HungPicture"][];
}

export const EVERYTHING: Look = {
  rules: [],
  depthM: null,
  cuts: [],
  whole: {},
  measures: [],
  style: "edges",
  markups: [],
  pictures: [],
};

/** What is seen now, or was kept by an earlier version, as a look. */
export function lookOf(seen: Pick<Look, "rules" | "depthM"> & Partial<Look>): Look {
  const {
    rules,
    depthM,
    cuts = [],
    whole = {},
    measures = [],
    style = "edges",
    markups = [],
    pictures = [],
  } = seen;
  return { rules, depthM, cuts, whole, measures, style, markups, pictures };
}

/** Whether nothing is hidden, faded, cut, or out of reach. */
export function isPlain({ rules, depthM, cuts }: Look): boolean {
  return !rules.length && depthM === null && !cuts.length;
}

interface Seen extends Look {
  federation: Federation | null;
  /** The rules in the core's words; of the last answer. */
  lines: readonly RuleLine[];
  states: Uint8Array;
  reasons: Int16Array;
  tints: Int32Array | null;
  /** Whether the core's answer to these rules is still on its way. */
  asking: boolean;
  history: History<Look>;
  /** What the core said of why it could not answer. */
  trouble: string;
  /** Change some of the look, under a name; false, with the reason said, where it cannot be drawn. */
  change(part: Partial<Look>, name: string): boolean;
  /** Make one more rule; the core names the change. */
  wish(wish: Wish, name?: string): void;
  /** See something else altogether, under a name. */
  see(look: Look, name: string): void;
  /** Begin with what was left, without a change to undo. */
  begin(look: Look, history?: History<Look>): void;
  undo(): string | null;
  redo(): string | null;
  goTo(step: number): void;
  follow(federation: Federation): void;
}

const NOTHING = new Uint8Array(0);
const NO_REASONS = new Int16Array(0);
/** What the core answered to rules, for as long as the rules are kept. */
const known = new WeakMap<readonly Rule[], { federation: Federation; answer: Resolved }>();
let asked = 0;

/** As it stands without any rule: what does not stand is hidden. */
export function plain(federation: Federation): Uint8Array {
  const states = new Uint8Array(numberingOf(federation).count).fill(SHOWN);
  for (const model of federation.models)
    if (!model.stands) states.fill(HIDDEN, model.first, model.first + model.global_ids.length);
  return states;
}

/** What is shown, faded, hidden and tinted, and by which rules; the core decides, and its last answer counts. */
export const useViewState = perProject<Seen>((set, get) => {
  /** Ask the core; an answer to what was asked before is not taken. */
  const ask = async (naming: boolean) => {
    const { federation, rules } = get();
    if (!federation) return;
    asked += 1;
    const mine = asked;
    const begun = naming ? get().history.steps[get().history.at]?.at : undefined;
    set({ asking: true });
    try {
      const answer = await fetchResolved(federation.id, rules);
      if (get().federation !== federation) return;
      if (mine !== asked) {
        // Something else was done since; what was done then has its name all the same.
        if (begun) set((s) => ({ history: { ...s.history, steps: named(s.history, begun, answer.done) } }));
        return;
      }
      // Of another version than the one that is drawn: that one comes, and is asked for then.
      if (answer.states.length !== numberingOf(federation).count) return;
      // The same list where nothing of it was left out, so that it is known by what was asked.
      const given = answer.lines.length === rules.length ? rules : answer.lines.map((line) => line.rule);
      known.set(given, { federation, answer });
      set((s) => ({
        ...answered(answer),
        rules: given,
        asking: false,
        trouble: "",
        history: { ...s.history, steps: told(s.history, given, naming ? answer.done : "") },
      }));
    } catch (error) {
      if (mine === asked)
        set({ asking: false, trouble: error instanceof Error ? error.message : String(error) });
    }
  };
  /** The step of a time with its name, if it has none yet. */
  const named = (history: History<Look>, at: string, name: string) =>
    history.steps.map((step) => (step.at === at && !step.name ? { ...step, name } : step));
  /** The present step with the rules as the core gave them back, and the name of what was done. */
  const told = (history: History<Look>, rules: readonly Rule[], name: string) =>
    history.steps.map((step, i) =>
      i === history.at ? { ...step, name: step.name || name, seen: { ...step.seen, rules } } : step,
    );
  /** Draw a look: what is known of its rules is not asked for again, unless the core is to name the change. */
  const show = (look: Look, states: Uint8Array | null, history: History<Look>, naming: boolean) => {
    const answer = answerTo(look.rules);
    const unnamed = naming && !history.steps[history.at]?.name;
    if (answer && !unnamed) {
      asked += 1;
      set({ ...look, history, ...answered(answer), asking: false, trouble: "" });
      return;
    }
    set((s) => ({ ...look, history, states: answer?.states ?? states ?? s.states }));
    void ask(naming);
  };
  const answered = ({ lines, states, reasons, tints }: Resolved) => ({ lines, states, reasons, tints });
  /** What the core said of rules in the building as it is drawn now. */
  const answerTo = (rules: readonly Rule[]): Resolved | null => {
    const before = known.get(rules);
    return before && before.federation === get().federation ? before.answer : null;
  };
  const go = (step: number): string | null => {
    const { history } = get();
    const to = history.steps[step];
    if (!to || step === history.at) return null;
    const look = lookOf(to.seen);
    show(look, atOnce(look), { ...history, at: step }, false);
    return (step < history.at ? history.steps[history.at]?.name : to.name) ?? "";
  };
  /** What is known already of how everything appears under rules. */
  const atOnce = ({ rules }: Look): Uint8Array | null => {
    const { federation } = get();
    if (!federation) return null;
    return rules.length ? null : plain(federation);
  };
  return {
    ...EVERYTHING,
    federation: null,
    lines: [],
    states: NOTHING,
    reasons: NO_REASONS,
    tints: null,
    asking: false,
    trouble: "",
    history: { steps: [{ seen: EVERYTHING, name: "", at: "" }], at: 0 },
    wish: (wish, name = "") => {
      const { federation, states, rules, history } = get();
      if (!federation) return;
      const rule = ruleOf(wish);
      const look = { ...lookOf(get()), rules: [...rules, rule] };
      const next = expected(federation, states, rule);
      show(look, next, withStep(history, { seen: look, name, at: rule.at }), true);
    },
    change: (part, name) => {
      const wrong = part.cuts ? tooManyPlanes(part.cuts) : "";
      if (wrong) useSession.getState().say(wrong);
      else get().see({ ...lookOf(get()), ...part }, name);
      return !wrong;
    },
    see: (wanted, name) => {
      const look = { ...wanted, cuts: withinPlanes(wanted.cuts) };
      const step = { seen: look, name, at: new Date().toISOString() };
      show(look, atOnce(look), withStep(get().history, step), true);
    },
    begin: (wanted, history) => {
      const look = { ...wanted, cuts: withinPlanes(wanted.cuts) };
      show(look, atOnce(look), history ?? { steps: [{ seen: look, name: "", at: "" }], at: 0 }, false);
    },
    undo: () => go(stepped(get().history, -1)),
    redo: () => go(stepped(get().history, 1)),
    goTo: (step) => void go(step),
    follow: (federation) => {
      const { rules } = get();
      // What can be told of the rules without the core, until it has answered.
      const states = rules.reduce((s, rule) => expected(federation, s, rule) ?? s, plain(federation));
      set({ federation, states, tints: null, reasons: NO_REASONS });
      void ask(false);
    },
  };
});

onBack(() => {
  const { federation, follow } = useViewState.getState();
  if (federation) follow(federation);
});
