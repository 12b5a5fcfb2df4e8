const WHO = "typed by";

/** What is half typed in this tab is of who typed it: the same person finds it again, and anybody else begins without. */
export function typedBy(key: string): void {
  if (sessionStorage.getItem(WHO) === key) return;
  sessionStorage.clear();
  sessionStorage.setItem(WHO, key);
}
