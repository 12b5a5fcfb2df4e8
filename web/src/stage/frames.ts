import type { View } from "./view";

/** A frame that takes longer makes gliding a nuisance. */
const SLOW_FRAME_MS = 80;

/** What frames need of the stage. */
export interface FramesHost {
  views(): readonly View[];
  /** Draw a view; whether that was in full, which takes longer. */
  draw(view: View): boolean;
  /** Wait until what was drawn is there. */
  finish(): void;
  moved(view: View): void;
  /** How many samples a view at rest is drawn by, and drawing the next one of it. */
  samples(): number;
  sample(view: View, number: number): void;
}

/** After so long without a frame the views are made smooth, where frames are not. */
const STILL_MS = 150;

/** Draws each view when something about it changed, and finds out whether frames take long. */
export class Frames {
  private asked = 0;
  private frameMs = 0;
  /** So many of the next frames are timed, as long as they are slow. */
  private toTime = 0;
  private still = 0;
  private smoothing = 0;
  /** How many samples each view has that is being made smooth. */
  private readonly sampled = new Map<View, number>();

  constructor(private readonly host: FramesHost) {}

  /** Draw a view, or all of them, in the next frame. */
  ask(view?: View): void {
    for (const each of view ? [view] : this.host.views()) each.dirty = true;
    if (!this.asked) this.asked = requestAnimationFrame((now) => this.frame(now));
  }

  /** Find out anew how long frames take; the first after something came also uploads it. */
  timeAgain(): void {
    this.toTime = 2;
  }

  get slow(): boolean {
    return this.frameMs > SLOW_FRAME_MS;
  }

  private frame(now: number): void {
    this.asked = 0;
    const drawn = this.host.views().filter((view) => view.dirty);
    for (const view of drawn) {
      view.dirty = false;
      const { navigation } = view;
      navigation.tick(now);
      if (this.slow) navigation.arrive();
      // Where drawing is slow, edges wait until the eye rests.
      view.sketching = this.slow && (navigation.busy || navigation.dragging);
      const begun = performance.now();
      const full = this.host.draw(view);
      if (this.toTime > 0 && !full) {
        this.host.finish();
        this.frameMs = performance.now() - begun;
        this.toTime = this.slow ? this.toTime - 1 : 0;
      }
      this.host.moved(view);
    }
    for (const view of drawn) view.settle();
    this.smoothLater();
  }

  /** Make the views smooth when nothing has changed for a moment: a sample each frame, so that what is done next need not wait. */
  private smoothLater(): void {
    if (this.host.samples() < 2) return;
    this.sampled.clear();
    cancelAnimationFrame(this.smoothing);
    window.clearTimeout(this.still);
    this.still = window.setTimeout(() => this.smooth(), STILL_MS);
  }

  private smooth(): void {
    if (this.asked || this.host.views().some(({ navigation }) => navigation.busy || navigation.dragging))
      return;
    const view = this.host.views().find((each) => (this.sampled.get(each) ?? 0) < this.host.samples());
    if (!view) return;
    const number = this.sampled.get(view) ?? 0;
    this.host.sample(view, number);
    this.sampled.set(view, number + 1);
    this.smoothing = requestAnimationFrame(() => this.smooth());
  }

  dispose(): void {
    cancelAnimationFrame(this.asked);
    cancelAnimationFrame(this.smoothing);
    window.clearTimeout(this.still);
  }
}
