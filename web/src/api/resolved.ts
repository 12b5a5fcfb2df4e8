import { answerOf, api, type Shapes } from "./client";
import { numbers, readColumns, texts } from "./columns";

type Rule = Shapes["Rule"];

/** A rule in plain words: what making it did, what it says, how many it selects, and for how many it decides. */
export interface RuleLine {
  rule: Rule;
  done: string;
  says: string;
  selects: number;
  decides: number;
  /** How many components it names one by one that the models no longer have. */
  gone: number;
}

/** How every component appears under rules, by its dense number in one version of the federation. */
export interface Resolved {
  /** What the last of the rules did, as the name of a change; also where it left nothing to do. */
  done: string;
  /** The rules that count, in their order. */
  lines: RuleLine[];
  states: Uint8Array;
  reasons: Int16Array;
  /** 0xRRGGBB, -2 for the file's own colours, -1 for none; null where nothing is tinted. */
  tints: Int32Array | null;
}

/** What rules come to in a project's building. */
export async function fetchResolved(projectId: string, rules: readonly Rule[]): Promise<Resolved> {
  const data = await answerOf<ArrayBuffer>(
    api.POST("/api/projects/{project_id}/resolve", {
      params: { path: { project_id: projectId } },
      body: { rules: [...rules] },
      parseAs: "arrayBuffer",
    }),
  );
  const columns = readColumns(data);
  const [done, says] = [texts(columns, "done"), texts(columns, "says")];
  const [selects, decides, gone] = ["selects", "decides", "gone"].map((name) => numbers(columns, name));
  const lines = numbers(columns, "rules").flatMap((place, i) => {
    const rule = rules[place];
    const count = (of: number[] | undefined) => of?.[i] ?? 0;
    const words = { done: done[i] ?? "", says: says[i] ?? "" };
    return rule
      ? [{ rule, ...words, selects: count(selects), decides: count(decides), gone: count(gone) }]
      : [];
  });
  const [states, reasons, tints] = ["states", "reasons", "tints"].map((name) => columns.get(name));
  return {
    done: texts(columns, "last")[0] ?? "",
    lines,
    states: states instanceof Uint8Array ? states : new Uint8Array(0),
    reasons: reasons instanceof Int16Array ? reasons : new Int16Array(0),
    tints: tints instanceof Int32Array && tints.length ? tints : null,
  };
}
