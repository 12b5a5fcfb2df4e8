/** What is tinted, of a sentence that says so. */
export function called(says: string): string {
  const what = says.replace(/^Tinted: /, "");
  return what === "everything" ? "the rest" : what.replace(/^(system|type|material|model|every) /, "");
}
