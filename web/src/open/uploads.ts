import { create } from "zustand";
import { noteAway, onBack, useConnection } from "../api/connection";
import { type Room, whyNoRoom } from "./room";

export type UploadStatus = "waiting" | "sending" | "sent" | "failed" | "cancelled";

export interface Upload {
  id: number;
  projectId: string;
  file: File;
  share: number;
  status: UploadStatus;
  message: string;
  /** How often it was sent again by itself. */
  again: number;
}

interface Uploads {
  items: Upload[];
}

/** Files on their way to the server. */
export const useUploads = create<Uploads>(() => ({ items: [] }));

const AT_ONCE = 3;
/** So often a file is sent again by itself when the server was away; one that never arrives has another fault. */
const MOST_AGAIN = 4;
const AWAY = new Set([0, 502, 503, 504]);
const requests = new Map<number, XMLHttpRequest>();
let nextId = 1;

function change(id: number, part: Partial<Upload>): void {
  useUploads.setState((s) => ({ items: s.items.map((u) => (u.id === id ? { ...u, ...part } : u)) }));
}

function sentence(request: XMLHttpRequest, name: string): string {
  try {
    const answer: unknown = JSON.parse(request.responseText);
    if (
      typeof answer === "object" &&
      answer !== null &&
      "detail" in answer &&
      typeof answer.detail === "string"
    ) {
      return answer.detail;
    }
  } catch {
    // Not an answer of ours; the sentence below says what is known.
  }
  return `${name} could not be sent (${request.status || "no connection"}). Try again.`;
}

function send(upload: Upload, author: string): void {
  const request = new XMLHttpRequest();
  requests.set(upload.id, request);
  change(upload.id, { status: "sending", share: 0, message: "" });
  request.upload.onprogress = (event) => {
    if (event.lengthComputable) change(upload.id, { share: event.loaded / event.total });
  };
  const finish = (part: Partial<Upload>) => {
    requests.delete(upload.id);
    change(upload.id, part);
    pump(author);
  };
  const fails = () => {
    if (AWAY.has(request.status) && upload.again < MOST_AGAIN) {
      noteAway();
      const message = "Waiting for a connection.";
      return finish({ status: "waiting", share: 0, message, again: upload.again + 1 });
    }
    return finish({ status: "failed", message: sentence(request, upload.file.name) });
  };
  request.onload = () => (request.status === 201 ? finish({ status: "sent", share: 1 }) : fails());
  request.onerror = fails;
  request.onabort = () => finish({ status: "cancelled", message: `${upload.file.name} was not sent.` });
  request.open("POST", `/api/projects/${upload.projectId}/models`);
  request.setRequestHeader("X-File-Name", encodeURIComponent(upload.file.name));
  request.setRequestHeader("X-Author", encodeURIComponent(author));
  request.setRequestHeader("Content-Type", "application/octet-stream");
  request.send(upload.file);
}

function pump(author: string): void {
  if (useConnection.getState().away) return;
  const { items } = useUploads.getState();
  const free = AT_ONCE - items.filter((u) => u.status === "sending").length;
  for (const upload of items.filter((u) => u.status === "waiting").slice(0, Math.max(0, free)))
    send(upload, author);
}

onBack(() => pump(author()));

function isOnItsWay({ status }: Upload): boolean {
  return status === "waiting" || status === "sending";
}

function author(): string {
  return localStorage.getItem("stairpath.name") ?? "";
}

/** Adding, cancelling and sending again, for one project. */
export function uploadsOf(projectId: string) {
  return {
    /** Send files; what does not fit into the project, as far as its room is known, says so and is not sent. */
    add(files: readonly File[], room?: Room): void {
      const waiting = useUploads.getState().items.filter((u) => u.projectId === projectId && isOnItsWay(u));
      let onTheWay = waiting.reduce((sum, u) => sum + u.file.size, 0);
      const added = files.map<Upload>((file) => {
        const why = room ? whyNoRoom(file.name, file.size, onTheWay, room) : null;
        if (why === null) onTheWay += file.size;
        return {
          id: nextId++,
          projectId,
          file,
          share: 0,
          status: why === null ? "waiting" : "failed",
          message: why ?? "",
          again: 0,
        };
      });
      useUploads.setState((s) => ({ items: [...s.items, ...added] }));
      pump(author());
    },
    cancel(id: number): void {
      const request = requests.get(id);
      if (request) request.abort();
      else change(id, { status: "cancelled", message: "Not sent." });
    },
    retry(id: number): void {
      change(id, { status: "waiting", message: "", again: 0 });
      pump(author());
    },
    clear(): void {
      useUploads.setState((s) => ({
        items: s.items.filter((u) => u.projectId !== projectId || isOnItsWay(u)),
      }));
    },
  };
}
