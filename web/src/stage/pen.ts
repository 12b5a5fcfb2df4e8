import { tone } from "../style/tone";

/** What is told apart at a glance: the least contrast of lines and marks (WCAG 2.2, 1.4.11). */
export const LEAST_CONTRAST = 3;

/** Relative luminance of a colour (WCAG 2.2). */
function luminance(colour: string): number {
  const hex = Number.parseInt(colour.slice(1), 16);
  const [r, g, b] = [hex >> 16, (hex >> 8) & 255, hex & 255].map((value) => {
    const share = value / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

/** How two colours stand out from each other, from 1 to 21 (WCAG 2.2). */
export function contrast(one: string, other: string): number {
  const [dark, light] = [luminance(one), luminance(other)].sort((a, b) => a - b) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

/** The colour of lines that stand on a background: ink, or paper where ink would not be seen. */
export function penOn(background: string): string {
  return contrast(tone.ink, background) >= LEAST_CONTRAST ? tone.ink : tone.paper;
}
