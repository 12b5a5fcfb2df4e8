import { afterEach, expect, test } from "vitest";
import { grouped, writeAsIn, written } from "./locale";

const DAY: Intl.DateTimeFormatOptions = { day: "2-digit", month: "2-digit", year: "numeric" };
const AT = new Date(2026, 11, 1, 9, 5);

afterEach(() => writeAsIn(""));

test.each([
  ["en-GB", "1,234,567", "01/12/2026"],
  ["en-US", "1,234,567", "12/01/2026"],
  ["de-DE", "1.234.567", "01.12.2026"],
])("in the way of %s", (language, number, day) => {
  writeAsIn(language);
  expect(grouped(1234567)).toBe(number);
  expect(written(AT, DAY)).toBe(day);
});

test("a language that nobody knows is the browser's own", () => {
  writeAsIn("xx-YY");
  expect(grouped(1234567)).toBe((1234567).toLocaleString());
});
