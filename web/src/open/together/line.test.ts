import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { useConnection } from "../../api/connection";
import { Line } from "./line";

/** A socket as the browser has it, told by the test what becomes of it. */
class Socket {
  static readonly OPEN = 1;
  static made: Socket[] = [];
  readyState = 0;
  sent: string[] = [];
  onopen: (() => void) | null = null;
  onclose: ((event: { code: number }) => void) | null = null;
  onmessage: ((event: { data: string }) => void) | null = null;
  constructor(readonly address: string) {
    Socket.made.push(this);
  }
  send(said: string) {
    this.sent.push(said);
  }
  close(code = 1000) {
    this.readyState = 3;
    this.onclose?.({ code });
  }
  opens() {
    this.readyState = 1;
    this.onopen?.();
  }
}

const now = (): Socket => Socket.made.at(-1) as Socket;
const on = { heard: vi.fn(), there: vi.fn() };
let line: Line;

beforeEach(() => {
  vi.useFakeTimers();
  vi.stubGlobal("WebSocket", Socket);
  Socket.made = [];
  vi.clearAllMocks();
  line = new Line("ws://here/together", on);
});
afterEach(() => {
  line.close();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

test("what is told goes out while the line is there, and is dropped while it is not", () => {
  line.tell({ kind: "did" });
  now().opens();
  line.tell({ kind: "present" });
  expect(now().sent).toEqual(['{"kind":"present"}']);
  now().onmessage?.({ data: '{"kind":"here"}' });
  expect(on.heard.mock.calls).toEqual([[{ kind: "here" }]]);
});

test("a lost line is tried again, twice as late each time, at most every 15 seconds, and soon after it was there", () => {
  const pauses = [1000, 2000, 4000, 8000, 15_000, 15_000];
  for (const [k, pause] of pauses.entries()) {
    now().close(1006);
    vi.advanceTimersByTime(pause - 1);
    expect(Socket.made).toHaveLength(k + 1);
    vi.advanceTimersByTime(1);
    expect(Socket.made).toHaveLength(k + 2);
  }
  now().opens();
  now().close(1006);
  vi.advanceTimersByTime(1000);
  expect(Socket.made).toHaveLength(pauses.length + 2);
  expect(on.there.mock.calls.at(-2)).toEqual([true]);
});

test("when the server is back a lost line is tried at once, and a line that is there is left alone", () => {
  now().close(1006);
  useConnection.setState((s) => ({ back: s.back + 1 }));
  expect(Socket.made).toHaveLength(2);
  now().opens();
  useConnection.setState((s) => ({ back: s.back + 1 }));
  vi.advanceTimersByTime(60_000);
  expect(Socket.made).toHaveLength(2);
});

test.each([4404, 1008])("a line that is refused for good (%i) stays away", (code) => {
  now().close(code);
  vi.advanceTimersByTime(60_000);
  useConnection.setState((s) => ({ back: s.back + 1 }));
  expect(Socket.made).toHaveLength(1);
  expect(on.there.mock.calls).toEqual([[false]]);
});

test("who closes the line hears nothing of it and tries no more", () => {
  now().opens();
  line.close();
  vi.advanceTimersByTime(60_000);
  expect(Socket.made).toHaveLength(1);
  expect(on.there.mock.calls).toEqual([[true]]);
});
