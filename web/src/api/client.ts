import createClient from "openapi-fetch";
import type { components, paths } from "./schema";

export type Shapes = components["schemas"];
export type Federation = Shapes["Federation"];
export type FederatedModel = Shapes["FederatedModel"];
export type ModelCard = Shapes["ModelCard"];
export type ProjectCard = Shapes["ProjectCard"];
export type Component = Shapes["Component"];
export type ComponentRef = Shapes["ComponentRef"];
export type Viewpoint = Shapes["Viewpoint"];
export type View = Shapes["View"];
export type PoseShape = Shapes["Pose"];

export const api = createClient<paths>({ baseUrl: "/" });

/** What went wrong, in the server's own sentence. */
export class Refused extends Error {}

interface Answer<T> {
  data?: T;
  error?: unknown;
}

function sentence(error: unknown): string {
  if (typeof error === "object" && error !== null && "detail" in error && typeof error.detail === "string") {
    return error.detail;
  }
  return "The server did not answer as expected; try again.";
}

/** The data of an answer, or Refused with the server's sentence. */
export async function taken<T>(answer: Promise<Answer<T>>): Promise<T> {
  let got: Answer<T>;
  try {
    got = await answer;
  } catch {
    throw new Refused("The server cannot be reached; check that it runs, then try again.");
  }
  if (got.error !== undefined) throw new Refused(sentence(got.error));
  return got.data as T;
}

export function blobAddress(sha: string): string {
  return `/api/blobs/${sha}`;
}
