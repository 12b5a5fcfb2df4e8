import type { Shapes } from "../api/client";

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
  if (kind === "sign_in") return action;
  if (kind === "action") return `was refused to ${title}`;
  if (kind === "member" && action === "made") return `let in ${title}`;
  if (kind === "member" && action === "deleted") return `took out ${title}`;
  if (kind === "member") return `changed what ${title} may`;
  if (!["made", "changed", "deleted", "restored"].includes(action))
    return title ? `${action}: ${title}` : action;
  return `${action} the ${KINDS[kind] ?? kind} ${title}`.trim();
}
