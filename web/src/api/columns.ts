/** Columns as the server packs them: an array or a list of texts under each name. The layout is that of `core/columns`. */
export type Column =
  | Float32Array
  | Float64Array
  | Int16Array
  | Int32Array
  | Uint8Array
  | Uint16Array
  | string[];

interface Entry {
  name: string;
  kind: "uint8" | "uint16" | "int16" | "int32" | "float32" | "float64" | "text";
  count: number;
  at: number;
  bytes: number;
}

const ARRAYS = {
  uint8: Uint8Array,
  uint16: Uint16Array,
  int16: Int16Array,
  int32: Int32Array,
  float32: Float32Array,
  float64: Float64Array,
} as const;
const HEAD_BYTES = 8;

/** The columns of an answer, arrays as they lie in it. */
export function readColumns(data: ArrayBuffer): Map<string, Column> {
  const text = new TextDecoder();
  if (text.decode(data.slice(0, 4)) !== "COLS") throw new Error("These bytes are no columns.");
  const begin = HEAD_BYTES + new DataView(data).getUint32(4, true);
  const entries: Entry[] = JSON.parse(text.decode(data.slice(HEAD_BYTES, begin)));
  const out = new Map<string, Column>();
  for (const { name, kind, count, at, bytes } of entries) {
    if (kind === "text") {
      const texts = text.decode(new Uint8Array(data, begin + at, bytes)).split("\0");
      out.set(name, count ? texts : []);
    } else {
      out.set(name, new ARRAYS[kind](data, begin + at, count));
    }
  }
  return out;
}

/** A column of texts; nothing where there is none of that name. */
export function texts(columns: Map<string, Column>, name: string): string[] {
  const column = columns.get(name);
  return Array.isArray(column) ? column : [];
}

/** A column of numbers; nothing where there is none of that name. */
export function numbers(columns: Map<string, Column>, name: string): number[] {
  const column = columns.get(name);
  return column && !Array.isArray(column) ? Array.from(column) : [];
}
