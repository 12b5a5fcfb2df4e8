import { Vector3 } from "three";
import type { ComponentRef, Federation, View } from "../api/client";
import { fromShape, toShape } from "../stage/pose";

const DIGITS = 4;
/** More components than these would make an address that does not fit into a message. */
export const MOST_NAMED = 60;
/** A model is known in an address by the beginning of its name on the wire. */
const SHORT = 8;

const STATES = ["shown", "hidden", "faded"] as const;
type State = (typeof STATES)[number];
type Parts = Record<string, string>;

/** The present view as the address bar carries it, in project coordinates, so that it outlives another origin. */
export function toAddress(view: View): string {
  const pose = fromShape(view.pose);
  const world = (v: Vector3) =>
    v.toArray().map((c, i) => Number((c + (view.origin_m[i] ?? 0)).toFixed(DIGITS)));
  const figures = [
    ...world(pose.eye),
    ...world(pose.target),
    ...pose.up.toArray().map((c) => Number(c.toFixed(6))),
    Number(pose.angleDeg.toFixed(3)),
    Number(pose.heightM.toFixed(DIGITS)),
    ...(pose.throughM > 0 ? [Number(pose.throughM.toFixed(DIGITS))] : []),
  ];
  const parts: Parts = { view: `${pose.projection === "parallel" ? "p" : "e"}${figures.join(",")}` };
  const cells = (view.cells ?? []).map(
    (cell) => `${encodeURIComponent(cell.level ?? "")}/${encodeURIComponent(cell.discipline)}/${cell.state}`,
  );
  if (cells.length) parts.cells = cells.join(",");
  const named = STATES.reduce((sum, state) => sum + (view[state]?.length ?? 0), 0);
  if (named > MOST_NAMED) parts.unnamed = String(named);
  else {
    for (const state of STATES) {
      const refs = (view[state] ?? []).map((ref) => `${ref.model.slice(0, SHORT)}.${ref.global_id}`);
      if (refs.length) parts[state] = refs.join(",");
    }
  }
  return `#${Object.entries(parts)
    .map(([name, value]) => `${name}=${value}`)
    .join("&")}`;
}

/** What an address carries: a view, and how many components differ that it could not name. */
export interface Addressed {
  view: View;
  unnamed: number;
}

/** The view that an address carries, or null if it carries none that can be looked at. */
export function fromAddress(hash: string, federation: Pick<Federation, "models">): Addressed | null {
  const parts: Parts = {};
  for (const part of hash.replace(/^#/, "").split("&")) {
    const at = part.indexOf("=");
    if (at > 0) parts[part.slice(0, at)] = part.slice(at + 1);
  }
  const pose = poseOf(parts.view ?? "");
  if (!pose) return null;
  const refs = (state: State) =>
    (parts[state] ?? "").split(",").flatMap<ComponentRef>((text) => {
      const [short = "", globalId = ""] = text.split(".");
      const model = short && federation.models.find((m) => m.id.startsWith(short));
      return model ? [{ model: model.id, global_id: globalId }] : [];
    });
  const view: View = {
    pose: toShape(pose),
    origin_m: [0, 0, 0],
    cells: (parts.cells ?? "").split(",").flatMap((text) => {
      const [level = "", discipline = "", state] = text.split("/").map(spoken);
      const known = STATES.find((each) => each === state);
      return known && discipline ? [{ level: level || null, discipline, state: known }] : [];
    }),
    shown: refs("shown"),
    hidden: refs("hidden"),
    faded: refs("faded"),
    picked: [],
    alternatives: {},
  };
  return { view, unnamed: Number(parts.unnamed ?? 0) || 0 };
}

function spoken(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return ""; // an address that was cut short in a message
  }
}

function poseOf(text: string) {
  const match = /^([pe])([-\d.,e]+)$/.exec(text);
  const f = match?.[2]?.split(",").map(Number) ?? [];
  if (f.length < 11 || f.length > 12 || f.some((v) => !Number.isFinite(v))) return null;
  const at = (i: number) => new Vector3(f[i], f[i + 1], f[i + 2]);
  const pose = {
    projection: match?.[1] === "p" ? ("parallel" as const) : ("perspective" as const),
    eye: at(0),
    target: at(3),
    up: at(6),
    angleDeg: Math.max(1, Math.min(120, f[9] ?? 60)),
    heightM: Math.max(0.01, f[10] ?? 10),
    throughM: Math.max(0, Math.min(1000, f[11] ?? 0)),
  };
  const look = pose.target.clone().sub(pose.eye);
  return look.clone().cross(pose.up).length() > 1e-6 * look.length() && look.length() > 1e-3 ? pose : null;
}
