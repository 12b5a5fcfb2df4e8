import { beforeEach, expect, test, vi } from "vitest";
import { useConnection } from "../api/connection";
import { uploadsOf, useUploads } from "./uploads";

/** A request that the test answers. */
class FakeRequest {
  static all: FakeRequest[] = [];
  upload: {
    onprogress: ((event: { lengthComputable: boolean; loaded: number; total: number }) => void) | null;
  } = {
    onprogress: null,
  };
  onload: (() => void) | null = null;
  onerror: (() => void) | null = null;
  onabort: (() => void) | null = null;
  status = 0;
  responseText = "";
  address = "";
  headers: Record<string, string> = {};
  sent: File | null = null;

  constructor() {
    FakeRequest.all.push(this);
  }

  open(_: string, address: string): void {
    this.address = address;
  }

  setRequestHeader(name: string, value: string): void {
    this.headers[name] = value;
  }

  send(file: File): void {
    this.sent = file;
  }

  abort(): void {
    this.onabort?.();
  }

  answer(status: number, body: unknown): void {
    this.status = status;
    this.responseText = typeof body === "string" ? body : JSON.stringify(body);
    this.onload?.();
  }
}

const file = (name: string) => new File(["ISO-10303-21;"], name);
const status = () => useUploads.getState().items.map((u) => u.status);
const uploads = uploadsOf("p1");

beforeEach(() => {
  FakeRequest.all = [];
  useUploads.setState({ items: [] });
  useConnection.setState({ away: false });
  vi.stubGlobal("fetch", () => Promise.reject(new Error("away")));
  vi.stubGlobal("XMLHttpRequest", FakeRequest);
  vi.stubGlobal("localStorage", { getItem: () => "Ída Fenn" });
});

test("three files are sent at a time, the next once one is through", () => {
  uploads.add(["a", "b", "c", "d", "e"].map((n) => file(`${n}.ifc`)));
  expect(status()).toEqual(["sending", "sending", "sending", "waiting", "waiting"]);
  FakeRequest.all[1]?.answer(201, []);
  expect(status()).toEqual(["sending", "sent", "sending", "sending", "waiting"]);
});

test("name and author go along percent-encoded", () => {
  uploads.add([file("Grüße & Co.ifc")]);
  const [request] = FakeRequest.all;
  expect(request?.address).toBe("/api/projects/p1/models");
  expect(request?.headers["X-File-Name"]).toBe("Gr%C3%BC%C3%9Fe%20%26%20Co.ifc");
  expect(decodeURIComponent(request?.headers["X-Author"] ?? "")).toBe("Ída Fenn");
});

test("progress is the share that went out", () => {
  uploads.add([file("a.ifc")]);
  FakeRequest.all[0]?.upload.onprogress?.({ lengthComputable: true, loaded: 25, total: 100 });
  expect(useUploads.getState().items[0]?.share).toBe(0.25);
  FakeRequest.all[0]?.upload.onprogress?.({ lengthComputable: false, loaded: 90, total: 0 });
  expect(useUploads.getState().items[0]?.share).toBe(0.25);
});

test("a refusal shows the server's own sentence and can be sent again", () => {
  uploads.add([file("a.ifc")]);
  FakeRequest.all[0]?.answer(422, {
    detail: "a.ifc is cut short (its end is missing); copy or export it again.",
  });
  const [failed] = useUploads.getState().items;
  expect(failed?.status).toBe("failed");
  expect(failed?.message).toMatch(/^a\.ifc is cut short/);
  uploads.retry(failed?.id ?? 0);
  expect(status()).toEqual(["sending"]);
  FakeRequest.all[1]?.answer(201, []);
  expect(status()).toEqual(["sent"]);
});

/** The server can be reached again. */
const comesBack = () => useConnection.setState((s) => ({ away: false, back: s.back + 1 }));

test.each([0, 503])("a file that the server was away for (%i) waits and is sent again by itself", (code) => {
  uploads.add([file("a.ifc")]);
  if (code) FakeRequest.all[0]?.answer(code, {});
  else FakeRequest.all[0]?.onerror?.();
  expect(status()).toEqual(["waiting"]);
  expect(useUploads.getState().items[0]?.message).toBe("Waiting for a connection.");
  expect(FakeRequest.all).toHaveLength(1);
  comesBack();
  expect(status()).toEqual(["sending"]);
  FakeRequest.all[1]?.answer(201, []);
  expect(status()).toEqual(["sent"]);
});

test("a file that never arrives is given up with its sentence", () => {
  uploads.add([file("a.ifc")]);
  for (let tries = 0; tries < 5; tries++) {
    FakeRequest.all[tries]?.onerror?.();
    comesBack();
  }
  expect(status()).toEqual(["failed"]);
  expect(useUploads.getState().items[0]?.message).toBe("a.ifc could not be sent (no connection). Try again.");
});

test("an answer that is not ours gives its number", () => {
  uploads.add([file("a.ifc")]);
  FakeRequest.all[0]?.answer(500, "<html>Internal error</html>");
  expect(useUploads.getState().items[0]?.message).toContain("(500)");
});

test("cancelling one that is under way stops it and lets the next go", () => {
  uploads.add(["a", "b", "c", "d"].map((n) => file(`${n}.ifc`)));
  const first = useUploads.getState().items[0];
  uploads.cancel(first?.id ?? 0);
  expect(status()).toEqual(["cancelled", "sending", "sending", "sending"]);
});

test("cancelling one that waits keeps it from being sent", () => {
  uploads.add(["a", "b", "c", "d"].map((n) => file(`${n}.ifc`)));
  uploads.cancel(useUploads.getState().items[3]?.id ?? 0);
  FakeRequest.all[0]?.answer(201, []);
  expect(status()).toEqual(["sent", "sending", "sending", "cancelled"]);
  expect(FakeRequest.all).toHaveLength(3);
});

test("clearing keeps what is still under way and other projects' files", () => {
  uploads.add([file("a.ifc"), file("b.ifc")]);
  uploadsOf("p2").add([file("c.ifc")]);
  FakeRequest.all[0]?.answer(201, []);
  FakeRequest.all[2]?.answer(201, []);
  uploads.clear();
  expect(useUploads.getState().items.map((u) => u.file.name)).toEqual(["b.ifc", "c.ifc"]);
});
