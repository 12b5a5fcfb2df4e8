let byKeys = false;

/** Whether what has the focus got it by keys: who clicked a button is done with it, who came to it by Tab is not. */
export const focusedByKeys = (): boolean => byKeys;

window.addEventListener("pointerdown", () => (byKeys = false), true);
window.addEventListener(
  "keydown",
  ({ key }) => {
    if (key === "Tab" || key.startsWith("Arrow")) byKeys = true;
  },
  true,
);
