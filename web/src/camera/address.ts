import { type ComponentRef, type Federation, Refused, type View } from "../api/client";
import { INSIDE_ANGLE_DEG, LEAST_ANGLE_DEG, MOST_ANGLE_DEG } from "../api/constants";
import { type OlderView, today } from "../open/document";

const DIGITS = 4;
/** Rules that take more room than this go by the short name of a link, so that the address fits into a message. */
const LONGEST = 800;

const STATES = ["shown", "hidden", "faded"] as const;
const STYLES: readonly View["style"][] = ["edges", "plain", "lines", "clear"];
type Parts = Record<string, string>;

/** Where views are kept that are too long for an address. */
export interface Links {
  keep(view: View): Promise<string>;
  open(id: string): Promise<View>;
}

async function throughStream(data: Uint8Array<ArrayBuffer>, stream: CompressionStream | DecompressionStream) {
  const out = new Blob([data]).stream().pipeThrough(stream);
  return new Uint8Array(await new Response(out).arrayBuffer());
}

async function packed(value: unknown): Promise<string> {
  const data = new TextEncoder().encode(JSON.stringify(value));
  const small = await throughStream(data, new CompressionStream("deflate-raw"));
  return btoa(String.fromCharCode(...small))
    .replace(/\+/g, "-")
    .replace(/\//g, "_")
    .replace(/=+$/, "");
}

async function unpacked(text: string): Promise<unknown> {
  const raw = atob(text.replace(/-/g, "+").replace(/_/g, "/"));
  const data = Uint8Array.from(raw, (c) => c.charCodeAt(0));
  const whole = await throughStream(data, new DecompressionStream("deflate-raw"));
  return JSON.parse(new TextDecoder().decode(whole));
}

/** The present view as the address bar carries it; long rules are kept on the server and named. */
export async function toAddress(view: View, links: Links): Promise<string> {
  const { eye } = view;
  const metres = (at: readonly number[]) => at.map((c) => Number(c.toFixed(DIGITS)));
  const through = view.limits?.through_m ?? 0;
  const figures = [
    ...metres(eye.eye_m),
    ...metres(eye.target_m),
    ...eye.up.map((c) => Number(c.toFixed(6))),
    Number(eye.angle_deg.toFixed(3)),
    Number(eye.height_m.toFixed(DIGITS)),
    ...(through > 0 ? [Number(through.toFixed(DIGITS))] : []),
  ];
  const parts: Parts = { view: `${eye.projection === "parallel" ? "p" : "e"}${figures.join(",")}` };
  if (view.limits?.depth_m) parts.depth = String(view.limits.depth_m);
  if (view.style !== "edges") parts.style = view.style;
  const { rules = [], cuts = [], whole, measures = [], markups = [] } = view;
  const cut: Omit<Carried, "rules"> = { cuts, whole, measures, markups };
  const plain = !cuts.length && !measures.length && !markups.length && !Object.keys(whole.of).length;
  const [seen, cutting] = [rules.length ? await packed(rules) : "", plain ? "" : await packed(cut)];
  if (seen.length + cutting.length > LONGEST) parts.link = await links.keep(view);
  else {
    if (seen) parts.seen = seen;
    if (cutting) parts.cut = cutting;
  }
  return `#${Object.entries(parts)
    .map(([name, value]) => `${name}=${value}`)
    .join("&")}`;
}

/** What an address carries: a view, and what is wrong with what it says of hidden things, if anything is. */
export interface Addressed {
  view: View;
  trouble: string;
}

/** The view that an address carries, or null if it carries none that can be looked at. */
export async function fromAddress(
  hash: string,
  federation: Pick<Federation, "models">,
  links: Links,
): Promise<Addressed | null> {
  const parts: Parts = {};
  for (const part of hash.replace(/^#/, "").split("&")) {
    const at = part.indexOf("=");
    if (at > 0) parts[part.slice(0, at)] = part.slice(at + 1);
  }
  const pose = poseOf(parts.view ?? "");
  if (!pose) return null;
  const depth = Number(parts.depth ?? 0);
  const view = older(parts, pose, federation);
  const { trouble, rules, ...carried } = await lookOf(parts, links);
  const style = STYLES.find((each) => each === parts.style) ?? "edges";
  const limits = { through_m: view.limits?.through_m ?? 0, depth_m: depth > 0 ? depth : null };
  return {
    view: { ...view, limits, style, ...carried, rules: [...(view.rules ?? []), ...rules] },
    trouble,
  };
}

const CUT_SHORT = "The link is incomplete, so everything is shown. Ask for the link again.";
type Carried = Pick<View, "rules" | "cuts" | "whole" | "measures" | "markups">;
const NOTHING: Carried = {
  rules: [],
  cuts: [],
  measures: [],
  markups: [],
  whole: { kind: "these", of: {} },
};

async function lookOf(parts: Parts, links: Links): Promise<typeof NOTHING & { trouble: string }> {
  try {
    if (parts.link) {
      const { rules, cuts, whole, measures, markups } = { ...NOTHING, ...(await links.open(parts.link)) };
      return { rules, cuts, whole, measures, markups, trouble: "" };
    }
    const rules = parts.seen ? await unpacked(parts.seen) : [];
    const cut = parts.cut ? await unpacked(parts.cut) : {};
    if (!Array.isArray(rules) || typeof cut !== "object") return { ...NOTHING, trouble: CUT_SHORT };
    return { ...NOTHING, ...(cut as Partial<typeof NOTHING>), rules, trouble: "" };
  } catch (error) {
    return { ...NOTHING, trouble: error instanceof Refused ? error.message : CUT_SHORT };
  }
}

/** What an address of an earlier version said of cells and components. */
function older(parts: Parts, pose: OlderView["pose"], federation: Pick<Federation, "models">): View {
  const refs = (state: (typeof STATES)[number]) =>
    (parts[state] ?? "").split(",").flatMap<ComponentRef>((text) => {
      const [short = "", globalId = ""] = text.split(".");
      const model = short && federation.models.find((m) => m.id.startsWith(short));
      return model ? [{ model: model.id, global_id: globalId }] : [];
    });
  const cells = (parts.cells ?? "").split(",").flatMap((text) => {
    const [level = "", discipline = "", state] = text.split("/").map(spoken);
    const known = STATES.find((each) => each === state);
    return known && discipline ? [{ level: level || null, discipline, state: known }] : [];
  });
  return today({
    pose,
    origin_m: [0, 0, 0],
    cells,
    shown: refs("shown"),
    hidden: refs("hidden"),
    faded: refs("faded"),
  });
}

function spoken(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return ""; // an address that was cut short in a message
  }
}

function poseOf(text: string): OlderView["pose"] | null {
  const match = /^([pe])([-\d.,e]+)$/.exec(text);
  const f = match?.[2]?.split(",").map(Number) ?? [];
  if (f.length < 11 || f.length > 12 || f.some((v) => !Number.isFinite(v))) return null;
  const at = (i: number) => f.slice(i, i + 3);
  const [eye, target, up] = [at(0), at(3), at(6)] as [number[], number[], number[]];
  const look = target.map((c, i) => c - (eye[i] ?? 0)) as [number, number, number];
  const [u, v, w] = up as [number, number, number];
  const across = Math.hypot(look[1] * w - look[2] * v, look[2] * u - look[0] * w, look[0] * v - look[1] * u);
  const length = Math.hypot(...look);
  if (!(across > 1e-6 * length && length > 1e-3)) return null;
  return {
    projection: match?.[1] === "p" ? "parallel" : "perspective",
    eye_m: eye,
    target_m: target,
    up,
    angle_deg: Math.max(LEAST_ANGLE_DEG, Math.min(MOST_ANGLE_DEG, f[9] ?? INSIDE_ANGLE_DEG)),
    height_m: Math.max(0.01, f[10] ?? 10),
    through_m: Math.max(0, Math.min(1000, f[11] ?? 0)),
  };
}
