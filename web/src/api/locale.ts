/** The languages in whose way dates and numbers are written; a person chooses one, else the browser's counts. */
export const LANGUAGES: readonly (readonly [string, string])[] = [
  ["en-GB", "English, United Kingdom"],
  ["en-US", "English, United States"],
  ["da-DK", "Danish"],
  ["nl-NL", "Dutch"],
  ["fi-FI", "Finnish"],
  ["fr-FR", "French"],
  ["de-DE", "German"],
  ["it-IT", "Italian"],
  ["nb-NO", "Norwegian"],
  ["pl-PL", "Polish"],
  ["pt-PT", "Portuguese"],
  ["es-ES", "Spanish"],
  ["sv-SE", "Swedish"],
];

let chosen: string | undefined;

/** Write dates and numbers in the way of a language; empty for the browser's. */
export function writeAsIn(language: string): void {
  chosen = LANGUAGES.find(([code]) => code === language)?.[0];
}

/** A number with its thousands told apart, in the way of who reads it. */
export function grouped(count: number): string {
  return count.toLocaleString(chosen);
}

/** A day or a moment, in the way of who reads it. */
export function written(at: Date, how: Intl.DateTimeFormatOptions): string {
  return at.toLocaleString(chosen, how);
}
