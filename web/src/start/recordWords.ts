import Bowser from "bowser";
import type { Shapes } from "../api/client";
import { spokenDay, spokenMoment } from "../open/dates";

/** What is recorded, by its kind, as people call it. */
export const KINDS: Readonly<Record<string, string>> = {
  project: "project",
  model: "model",
  viewpoint: "viewpoint",
  folder: "folder",
  component_set: "set",
  saved_route: "route",
  task: "check or sheet",
  topic: "topic",
  topic_file: "file",
  topic_note: "comment",
  meeting: "meeting",
  meeting_point: "note",
  member: "member",
  guest_link: "guest link",
  bin: "bin",
  backup: "backup",
  person: "person",
  sign_in: "signing in",
  action: "refusal",
};

/** The kinds in a project's record, and those in the server's. */
export const OF_PROJECT: readonly string[] = Object.keys(KINDS).filter(
  (kind) => !["person", "sign_in", "action", "backup"].includes(kind),
);
export const OF_SERVER: readonly string[] = ["person", "sign_in", "action", "project", "backup"];

/** What was done, in a few words: "changed the topic Gap". */
export function spokenDeed({ action, kind, title }: Shapes["RecordEntry"]): string {
  // The name was given by somebody who may be another.
  if (kind === "sign_in") return action === "was refused" ? "could not sign in" : action;
  if (kind === "action") return `was refused to ${title}`;
  if (kind === "member" && action === "made") return `let in ${title}`;
  if (kind === "member" && action === "deleted") return `took out ${title}`;
  if (kind === "member") return `changed what ${title} may`;
  if (!["made", "changed", "deleted", "restored"].includes(action))
    return title ? `${action}: ${title}` : action;
  return `${action} the ${KINDS[kind] ?? kind} ${title}`.trim();
}

/** A browser or program as people call it, of how it names itself: "Firefox 150 on Windows". */
export function spokenBrowser(agent: string): string {
  const { browser, os } = Bowser.parse(agent || "none");
  if (!browser.name) return agent;
  const version = browser.version?.split(".")[0] ?? "";
  return `${browser.name} ${version}`.trim() + (os.name ? ` on ${os.name}` : "");
}

/** What something was or became; a day or a moment as the person's own locale writes it. */
export function spokenValue(value: string | null): string {
  if (!value) return "nothing";
  if (/^\d{4}-\d\d-\d\d$/.test(value)) return spokenDay(value);
  return /^\d{4}-\d\d-\d\dT[\d:.]+(Z|[+-]\d\d:\d\d)$/.test(value) ? spokenMoment(value) : value;
}
