/** The address of a page that may be opened by a click, and its host; null for what would run or read something here. */
export function webAddress(text: string): { href: string; host: string } | null {
  if (!URL.canParse(text)) return null;
  const { protocol, href, host } = new URL(text);
  return protocol === "http:" || protocol === "https:" ? { href, host } : null;
}
