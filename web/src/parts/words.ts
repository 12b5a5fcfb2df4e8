/** A number with what it counts: "1 model", "2 models", "1,224 components". */
export function counted(count: number, one: string, many = `${one}s`): string {
  return `${count.toLocaleString("en-GB")} ${count === 1 ? one : many}`;
}
