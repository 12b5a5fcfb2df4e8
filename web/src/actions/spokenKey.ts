/** A key as it is written on keyboards. */
export function spokenKey(key: string): string {
  const names: Record<string, string> = {
    escape: "Esc",
    enter: "Enter",
    home: "Home",
    shift: "Shift",
    ctrl: "Ctrl",
    left: "←",
    right: "→",
    up: "↑",
    down: "↓",
    f11: "F11",
    pageup: "Page Up",
    pagedown: "Page Down",
  };
  return key
    .split("+")
    .map((part) => names[part] ?? part.toUpperCase())
    .join(" ");
}
