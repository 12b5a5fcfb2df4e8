/** A project's name from its files: what their names share, else the first one's. */
export function nameFrom(files: readonly { name: string }[]): string {
  const stems = files.map((f) => f.name.replace(/\.[^.]+$/, ""));
  const [first = "New project"] = stems;
  let shared = first.length;
  for (const stem of stems) while (!stem.startsWith(first.slice(0, shared))) shared--;
  const common = first.slice(0, shared).replace(/[-_ .]+$/, "");
  return common.length >= 2 ? common : first;
}
