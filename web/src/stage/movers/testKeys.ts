import { vi } from "vitest";

/** A page that hears keys at times that a test chooses. */
export class TestKeys {
  private readonly page = new EventTarget();

  constructor() {
    vi.stubGlobal("window", this.page);
    vi.stubGlobal("Element", class {});
  }

  send(kind: "keydown" | "keyup", code: string, atMs: number, more: Partial<KeyboardEvent> = {}): Event {
    const event = new Event(kind, { cancelable: true });
    const plain = { shiftKey: false, ctrlKey: false, metaKey: false, altKey: false, repeat: false };
    for (const [name, value] of Object.entries({ ...plain, ...more, code, timeStamp: atMs }))
      Object.defineProperty(event, name, { value });
    this.page.dispatchEvent(event);
    return event;
  }

  /** Hold a key from one time to another. */
  hold(code: string, fromMs: number, toMs: number): void {
    this.send("keydown", code, fromMs);
    this.send("keyup", code, toMs);
  }

  leave(): void {
    this.page.dispatchEvent(new Event("blur"));
  }
}
