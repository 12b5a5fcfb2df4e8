import { bytesOf, type Shapes } from "../api/client";
import { stepName } from "../open/selections/groups";
import type { useUnits } from "../open/units";

/** What is said beside each component: its text, and whether it is a figure that was worked out from the triangles. */
export interface Said {
  text: string;
  figure: boolean;
  worked: boolean;
}

export interface Column {
  what: string;
  /** As its heading has it, with the unit where figures have one. */
  heading: string;
  of(component: number, units: ReturnType<typeof useUnits>): Said;
}

type Wire = Shapes["Schedule"]["columns"][number];

/** A figure in its unit, as this person reads lengths. */
export function spokenFigure(value: number, unit: string, units: ReturnType<typeof useUnits>): string {
  if (unit === "m") return units.length(value);
  if (unit === "m²") return units.area(value);
  if (unit === "m³") return units.volume(value);
  return `${Number(value.toPrecision(6))} ${unit}`.trim();
}

const NOTHING: Said = { text: "", figure: false, worked: false };

/** A column of an answer, unpacked. */
export function columnOf(wire: Wire): Column {
  const heading = stepName(wire.what);
  if (wire.kind === "texts") {
    const value = new Int32Array(bytesOf(wire.value));
    return {
      what: wire.what,
      heading,
      of: (component) => ({ ...NOTHING, text: wire.texts[value[component] ?? 0] ?? "" }),
    };
  }
  const figures = new Float64Array(bytesOf(wire.figures));
  const worked = new Uint8Array(bytesOf(wire.worked));
  return {
    what: wire.what,
    heading,
    of: (component, units) => {
      const value = figures[component] ?? Number.NaN;
      if (Number.isNaN(value)) return { ...NOTHING, figure: true };
      return {
        text: spokenFigure(value, wire.unit, units),
        figure: true,
        worked: worked[component] === 1,
      };
    },
  };
}
