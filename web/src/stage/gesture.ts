import type { Vector2 } from "three";

/** A mouse button, finger or pen on a view, or over it. */
export interface Press {
  /** From -1 to 1, right and up. */
  at: Vector2;
  pointer: number;
  kind: "mouse" | "touch" | "pen";
  button: number;
  shift: boolean;
  /** With the key held that adds to what is picked. */
  adds: boolean;
  /** With the key held that goes through surfaces. */
  through: boolean;
}

/** A turn of the wheel, or two fingers on a trackpad, in pixels. */
export interface WheelTurn {
  at: Vector2;
  acrossPx: number;
  alongPx: number;
  pace: "fine" | "plain" | "fast";
  through: boolean;
  /** Two fingers that spread or close come as a wheel with the control key. */
  pinched: boolean;
}

/** A drag, from its first movement beyond that of a click to its end. */
export interface Gesture {
  begin?(): void;
  move(from: Vector2, to: Vector2, press: Press): void;
  /** Over, or broken off. */
  end?(broken: boolean): void;
}
