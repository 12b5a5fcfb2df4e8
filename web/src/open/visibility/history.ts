/** Something that was seen, what change led to it, and when. */
export interface Step<T> {
  seen: T;
  /** What was done, as one says it; empty for how it began, and until the core has named it. */
  name: string;
  at: string;
}

/** Everything that was seen one after the other, and which of it is seen now. */
export interface History<T> {
  steps: readonly Step<T>[];
  at: number;
}

export const MOST_STEPS = 200;

/** The history with one more step after the present one; what was undone is gone, and how it began stays longest. */
export function withStep<T>(history: History<T>, step: Step<T>): History<T> {
  const steps = [...history.steps.slice(0, history.at + 1), step].slice(-MOST_STEPS);
  return { steps, at: steps.length - 1 };
}

/** Where a step back or forward leads, at most to the ends. */
export function stepped<T>(history: History<T>, by: number): number {
  return Math.max(0, Math.min(history.steps.length - 1, history.at + by));
}
