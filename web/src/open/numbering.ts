import type { ComponentRef, FederatedModel, Federation, Shapes } from "../api/client";

type These = Shapes["These"];

/** Components that are known one by one, as a selection. */
export function theseOf(refs: readonly ComponentRef[]): These {
  const of: Record<string, string[]> = {};
  for (const { model, global_id } of refs) {
    const ids = of[model] ?? [];
    ids.push(global_id);
    of[model] = ids;
  }
  return { kind: "these", of };
}

/** Dense numbers of one version of a federation, and the components they stand for. Nothing else translates. */
export class Numbering {
  readonly count: number;
  private readonly models: readonly FederatedModel[];
  private readonly byId = new Map<string, Map<string, number>>();

  constructor({ models }: Pick<Federation, "models">) {
    this.models = models;
    this.count = models.reduce((sum, model) => sum + model.global_ids.length, 0);
  }

  /** The model and the place in it of a component. */
  find(component: number): { model: FederatedModel; at: number; globalId: string } | null {
    for (const model of this.models) {
      const at = component - model.first;
      if (at >= 0 && at < model.global_ids.length) return { model, at, globalId: model.global_ids[at] ?? "" };
    }
    return null;
  }

  /** The number of a component known by model and GlobalId, or -1. */
  numberOf(modelId: string, globalId: string): number {
    let known = this.byId.get(modelId);
    if (!known) {
      // Without a model the first one counts that has it: what was named before any model brought it.
      const models = modelId ? this.models.filter((m) => m.id === modelId) : [...this.models].reverse();
      known = new Map(models.flatMap((m) => m.global_ids.map((id, i) => [id, m.first + i] as const)));
      this.byId.set(modelId, known);
    }
    return known.get(globalId) ?? -1;
  }

  /** The numbers of components known one by one; those that are not there are left out. */
  numbersOf(these: These): number[] {
    return Object.entries(these.of)
      .flatMap(([model, ids]) => ids.map((id) => this.numberOf(model, id)))
      .filter((n) => n >= 0);
  }

  refOf(component: number): ComponentRef | null {
    const found = this.find(component);
    return found && { model: found.model.id, global_id: found.globalId };
  }

  /** Components one by one, by names that outlive this version. */
  these(components: readonly number[]): These {
    return theseOf(components.flatMap((component) => this.refOf(component) ?? []));
  }
}

const made = new WeakMap<object, Numbering>();

/** The numbering of a federation. */
export function numberingOf(federation: Pick<Federation, "models">): Numbering {
  const known = made.get(federation) ?? new Numbering(federation);
  made.set(federation, known);
  return known;
}

/** The model and the place in it of a component's dense number. */
export function find(federation: Pick<Federation, "models">, component: number) {
  return numberingOf(federation).find(component);
}

/** The dense number of a component known by model and GlobalId, or -1. */
export function numberOf(federation: Pick<Federation, "models">, modelId: string, globalId: string): number {
  return numberingOf(federation).numberOf(modelId, globalId);
}
