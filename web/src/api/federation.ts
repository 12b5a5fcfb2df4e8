import { answerOf, api, type FederatedModel, type Federation, type Shapes, toBytes } from "./client";
import { type Column, numbers, readColumns, texts } from "./columns";

type Head = Shapes["Federation"];
type ModelHead = Shapes["FederatedModel"];

/** Columns by where they are; what a hash names never changes. */
const kept = new Map<string, Promise<Map<string, Column>>>();
const MOST_KEPT = 128;

function columnsOf(projectId: string, sha: string): Promise<Map<string, Column>> {
  const address = `/api/projects/${projectId}/columns/${sha}`;
  const found = kept.get(address);
  if (found) return found;
  const fetched = toBytes(fetch(address), "The building's data").then(readColumns);
  kept.set(address, fetched);
  fetched.catch(() => kept.delete(address));
  const oldest = kept.keys().next();
  if (kept.size > MOST_KEPT && !oldest.done) kept.delete(oldest.value);
  return fetched;
}

/** A model with its columns; colours count in those of the whole federation. */
export function withColumns(
  head: ModelHead,
  named: Map<string, Column>,
  placed: Map<string, Column>,
  colours: Map<string, number>,
): FederatedModel {
  const own = head.colours.map((colour) => {
    const at = colours.get(colour) ?? colours.size;
    colours.set(colour, at);
    return at;
  });
  return {
    ...head,
    global_ids: texts(named, "global_id"),
    labels: texts(named, "label"),
    level: numbers(placed, "level"),
    discipline: numbers(placed, "discipline"),
    colour: numbers(placed, "colour").map((c) => own[c] ?? 0),
  };
}

/** The building to draw: its head, and each model's columns where they are not known yet. */
export async function fetchFederation(projectId: string): Promise<Federation> {
  const head: Head = await answerOf(
    api.GET("/api/projects/{project_id}/federation", { params: { path: { project_id: projectId } } }),
  );
  const colours = new Map<string, number>();
  const columns = await Promise.all(
    head.models.map((model) =>
      Promise.all([columnsOf(projectId, model.named), columnsOf(projectId, model.placed)]),
    ),
  );
  const models = head.models.map((model, i) => {
    const [named, placed] = columns[i] ?? [new Map(), new Map()];
    return withColumns(model, named, placed, colours);
  });
  return { ...head, models, colours: [...colours.keys()] };
}
