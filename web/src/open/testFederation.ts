import type { FederatedModel, Federation } from "../api/client";

/** A small federation for tests: models by their key, each with rows of GlobalId, level and discipline. */
export function federationOf(
  models: Record<string, readonly (readonly [string, number, number])[]>,
  more: Partial<Federation> = {},
  away: readonly string[] = [],
): Federation {
  let first = 0;
  return {
    id: "p",
    name: "House",
    version: 1,
    trouble: "",
    origin_m: [0, 0, 0],
    bounds_m: null,
    building_north_deg: 0,
    true_north_deg: null,
    disciplines: [
      { code: "ARC", name: "Architecture", colour: "#7d8790" },
      { code: "STR", name: "Structure", colour: "#7a5fa8" },
    ],
    levels: [
      { name: "Level 00", elevation_m: 0, begins_m: -0.25 },
      { name: "Level 01", elevation_m: 4, begins_m: 3.75 },
    ],
    rooms: [],
    colours: ["#ffffff"],
    models: Object.entries(models).map(([id, rows]): FederatedModel => {
      const model = {
        id,
        name: `QH-${id}`,
        first,
        stands: !away.includes(id),
        count: rows.length,
        elsewhere: false,
        named: "",
        placed: "",
        alternative_what: null,
        alternative_option: null,
        global_ids: rows.map(([globalId]) => globalId),
        labels: rows.map(([globalId]) => globalId.toUpperCase()),
        level: rows.map(([, level]) => level),
        discipline: rows.map(([, , discipline]) => discipline),
        colour: rows.map(() => 0),
        chunks: [],
      };
      first += rows.length;
      return model;
    }),
    ...more,
  };
}
