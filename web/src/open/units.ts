import { useMemo } from "react";
import { useHabits } from "./habits";
import type { Units } from "./unitNames";

/** By definition (the international foot of 1959). */
const FOOT_M = 0.3048;
const INCHES = 12;
const SIXTEENTHS = 16;
const MOST = 1e8;
const MINUS = "−";

function sign(text: string, value: number): string {
  return value < 0 && /[1-9]/.test(text) ? `${MINUS}${text}` : text;
}

function feet(metres: number, parts: number, spoken: (inches: number) => string): string {
  const whole = Math.round((Math.abs(metres) / FOOT_M) * INCHES * parts);
  const feetOf = Math.floor(whole / (INCHES * parts));
  const inches = spoken(whole - feetOf * INCHES * parts);
  return feetOf ? `${feetOf}' ${inches}"` : `${inches}"`;
}

/** Sixteenths of an inch as inches and a fraction in its lowest terms. */
function fraction(sixteenths: number): string {
  const whole = Math.floor(sixteenths / SIXTEENTHS);
  let [over, under] = [sixteenths % SIXTEENTHS, SIXTEENTHS];
  if (!over) return String(whole);
  while (over % 2 === 0) [over, under] = [over / 2, under / 2];
  return whole ? `${whole} ${over}/${under}` : `${over}/${under}`;
}

/** A length as it is read: to the millimetre, or to a sixteenth of an inch. */
export function spokenLength(metres: number, units: Units, digits?: number): string {
  const size = Math.abs(metres);
  if (units === "m") return sign(`${size.toFixed(digits ?? 3)} m`, metres);
  if (units === "mm") return sign(`${(size * 1000).toFixed(digits === undefined ? 1 : 0)} mm`, metres);
  if (units === "ft") return sign(feet(metres, SIXTEENTHS, fraction), metres);
  return sign(
    feet(metres, 100, (hundredths) => (hundredths / 100).toFixed(2)),
    metres,
  );
}

/** The same with its sign, such as a height. */
export function signedLength(metres: number, units: Units, digits?: number): string {
  const text = spokenLength(metres, units, digits);
  if (text.startsWith(MINUS)) return text;
  return `${/[1-9]/.test(text) ? "+" : "±"}${text}`;
}

/** A height to the centimetre, millimetre or inch, without its unit: `+26' 3"`. */
export function shortHeight(metres: number, units: Units): string {
  if (metric(units)) return signedLength(metres, units, 2).replace(/ m+$/, "");
  const text = sign(feet(metres, 1, String), metres);
  return text.startsWith(MINUS) ? text : `${/[1-9]/.test(text) ? "+" : "±"}${text}`;
}

function metric(units: Units): units is "m" | "mm" {
  return units === "m" || units === "mm";
}

export function spokenArea(squareM: number, units: Units): string {
  return metric(units) ? `${squareM.toFixed(3)} m²` : `${(squareM / FOOT_M ** 2).toFixed(2)} ft²`;
}

export function spokenVolume(cubicM: number, units: Units): string {
  return metric(units) ? `${cubicM.toFixed(4)} m³` : `${(cubicM / FOOT_M ** 3).toFixed(3)} ft³`;
}

/** A length as it stands in a field, to be typed over. */
export function typedLength(metres: number, units: Units): string {
  if (units === "m") return String(Number(metres.toFixed(4)));
  if (units === "mm") return String(Number((metres * 1000).toFixed(1)));
  return spokenLength(metres, units).replace(MINUS, "-");
}

/** A length without its unit and with all its digits, to be copied. */
export function fullLength(metres: number, units: Units): string {
  if (units === "m") return String(metres);
  return String(units === "mm" ? metres * 1000 : metres / FOOT_M);
}

const IN_METRES = /(?<![\w.])(\d+\.\d{2,3}) m(?![\w²³/])/g;

/** A sentence about lengths in metres, to the centimetre or millimetre, with these in one's own units. */
export function lengthsWithin(sentence: string, units: Units): string {
  if (units === "m") return sentence;
  return sentence.replace(IN_METRES, (_, metres: string) => spokenLength(Number(metres), units, 0));
}

const NUMBER = String.raw`\d+(?:[.,]\d*)?|[.,]\d+`;
const INCH = String.raw`(?:(\d+)[\s-]+)?(\d+)\s*/\s*(\d+)|(${NUMBER})`;
const METRIC = new RegExp(String.raw`^(${NUMBER})\s*(mm|cm|dm|m)?$`, "i");
const FEET = new RegExp(
  String.raw`^(?:(${NUMBER})\s*(?:'|ft|feet|foot))?\s*-?\s*(?:(?:${INCH})\s*("|in|inch|inches)?)?$`,
  "i",
);
const METRES: Readonly<Record<string, number>> = { m: 1, dm: 0.1, cm: 0.01, mm: 0.001 };

function number(text: string): number {
  return Number(text.replace(",", "."));
}

function unsigned(text: string, units: Units): number | null {
  const plainly = METRIC.exec(text);
  if (plainly) {
    const value = number(plainly[1] ?? "");
    const unit = plainly[2]?.toLowerCase() ?? (units === "mm" ? "mm" : units === "m" ? "m" : null);
    if (unit === "mm") return value / 1000;
    return unit === null ? value * FOOT_M : value * (METRES[unit] ?? 1);
  }
  const imperial = FEET.exec(text);
  if (!imperial) return null;
  const [, ft, whole, over, under, plain, mark] = imperial;
  const inches = over
    ? Number(whole ?? 0) + Number(over) / Number(under)
    : plain !== undefined
      ? number(plain)
      : 0;
  // A bare fraction is inches for those who use them; for others it is nothing.
  if (ft === undefined && !mark && (!over || metric(units))) return null;
  return (number(ft ?? "0") + inches / INCHES) * FOOT_M;
}

/**
 * A length that was typed in any unit, in metres: `2.5 m`, `2500 mm`, `8' 2 1/2"`; a number alone is in one's own unit,
 * metres, millimetres or feet. Null for what is none.
 */
export function lengthOf(text: string, units: Units): number | null {
  const plain = text
    .trim()
    .replace(/[′’‘]/g, "'")
    .replace(/[″”“]|''/g, '"');
  const below = /^[-−]/.test(plain);
  const value = unsigned(plain.replace(/^[-−+]\s*/, ""), units);
  if (value === null || !Number.isFinite(value) || value > MOST) return null;
  return below ? -value : value;
}

/** What is wrong with the first of some lengths that is none, or nothing. */
export function wrongLength(texts: readonly string[], units: Units): string {
  const wrong = texts.find((text) => lengthOf(text, units) === null);
  if (wrong === undefined) return "";
  if (wrong.trim() === "") return "A length is missing. Type it, or 0.";
  return `${wrong.trim()} is not a length. Type one such as 2.5 m, 2500 mm or 8' 2 1/2", at most 100,000 km.`;
}

/** The short sign of what a number alone is taken for. */
export function unitSign(units: Units): string {
  return metric(units) ? units : "ft";
}

/** Lengths as one person reads and types them. */
export function spokenIn(units: Units) {
  return {
    units,
    /** The sign of what a number alone is taken for. */
    sign: unitSign(units),
    length: (metres: number, digits?: number) => spokenLength(metres, units, digits),
    signed: (metres: number, digits?: number) => signedLength(metres, units, digits),
    /** A height with its sign and without its unit, where there is little room: to the inch for who reads feet. */
    shortHeight: (metres: number) => shortHeight(metres, units),
    within: (sentence: string) => lengthsWithin(sentence, units),
    area: (squareM: number) => spokenArea(squareM, units),
    volume: (cubicM: number) => spokenVolume(cubicM, units),
    typed: (metres: number) => typedLength(metres, units),
    full: (metres: number) => fullLength(metres, units),
    fullArea: (squareM: number) => String(metric(units) ? squareM : squareM / FOOT_M ** 2),
    fullVolume: (cubicM: number) => String(metric(units) ? cubicM : cubicM / FOOT_M ** 3),
    parse: (text: string) => lengthOf(text, units),
    wrong: (texts: readonly string[]) => wrongLength(texts, units),
  };
}

export type Spoken = ReturnType<typeof spokenIn>;

/** Lengths in the units of this person. */
export function useUnits(): Spoken {
  const units = useHabits((s) => s.units);
  return useMemo(() => spokenIn(units), [units]);
}

/** The same outside of what is drawn. */
export function unitsNow(): Spoken {
  return spokenIn(useHabits.getState().units);
}
