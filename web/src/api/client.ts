import createClient from "openapi-fetch";
import { noteAway } from "./connection";
import { usePerson } from "./person";
import type { components, paths } from "./schema";
import { useSignedOut } from "./signedOut";

export type Shapes = components["schemas"];

/** A model with what is per component, each column in the order of its components. */
export interface FederatedModel extends Omit<Shapes["FederatedModel"], "colours"> {
  global_ids: string[];
  labels: string[];
  /** Index into the levels, -1 for none. */
  level: number[];
  discipline: number[];
  /** Index into the federation's colours. */
  colour: number[];
}

/** The building as it is drawn. */
export interface Federation extends Omit<Shapes["Federation"], "models"> {
  models: FederatedModel[];
  colours: string[];
}

export type ModelCard = Shapes["ModelCard"];
export type ProjectCard = Shapes["ProjectCard"];
export type Component = Shapes["Component"];
export type ComponentRef = Shapes["ComponentRef"];
export type Viewpoint = Shapes["Viewpoint"];
export type View = Shapes["View"];
export type PoseShape = Shapes["Pose"];

const SIGN_IN_FIRST = 401;

export const api = createClient<paths>({ baseUrl: "/" });
api.use({
  onRequest({ request }) {
    request.headers.set("X-Author", encodeURIComponent(usePerson.getState().name));
    return request;
  },
  onResponse({ response, schemaPath }) {
    if (response.status === SIGN_IN_FIRST && schemaPath !== "/api/sign-in") useSignedOut.getState().note();
  },
});

/** What went wrong, in the server's own sentence. */
export class Refused extends Error {}

/** The server or its database could not be reached; nothing is wrong with what was asked. */
export class Away extends Refused {}

/** What is said of what could not be done because the server was away. */
export const AWAY = "That was not done, as Stair Path cannot be reached. Do it again once it is back.";
const UNAVAILABLE = new Set([502, 503, 504]);

interface Answer<T> {
  data?: T;
  error?: unknown;
  response?: Response;
}

function sentence(error: unknown): string {
  if (typeof error === "object" && error !== null && "detail" in error && typeof error.detail === "string") {
    return error.detail;
  }
  return "The server gave an unexpected answer. Try again.";
}

/** The data of an answer, or Refused with the server's sentence. */
export async function answerOf<T>(answer: Promise<Answer<T>>): Promise<T> {
  let got: Answer<T>;
  try {
    got = await answer;
  } catch {
    noteAway();
    throw new Away(AWAY);
  }
  if (UNAVAILABLE.has(got.response?.status ?? 0)) {
    noteAway();
    throw new Away(AWAY);
  }
  if (got.error !== undefined) throw new Refused(sentence(got.error));
  return got.data as T;
}

/** Where a picture or a piece of a project is. */
export function blobAddress(projectId: string, sha: string): string {
  return `/api/projects/${projectId}/blobs/${sha}`;
}

/** The bytes of an answer; `what` says what did not come if it does not. */
export async function toBytes(asked: Promise<Response>, what: string): Promise<ArrayBuffer> {
  let answer: Response;
  try {
    answer = await asked;
  } catch {
    noteAway();
    throw new Away(AWAY);
  }
  if (UNAVAILABLE.has(answer.status)) {
    noteAway();
    throw new Away(AWAY);
  }
  if (!answer.ok) throw new Refused(`${what} could not be loaded (${answer.status}). Reload the page.`);
  return answer.arrayBuffer();
}

/** The bytes of numbers that came as base64. */
export function bytesOf(text: string): ArrayBuffer {
  return Uint8Array.from(atob(text), (c) => c.charCodeAt(0)).buffer;
}
