import Box from "@mui/material/Box";
import Dialog from "@mui/material/Dialog";
import OutlinedInput from "@mui/material/OutlinedInput";
import { useEffect, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import type { Action } from "../open/action";
import { useSession } from "../open/session";
import { useTools } from "../open/tools";
import { face, tone } from "../style/theme";
import { useActionList } from "./ActionsContext";
import { focusedByKeys } from "./focusedByKeys";
import { heldBack } from "./inHand";
import { SelectionMenu } from "./SelectionMenu";
import { spokenKey } from "./spokenKey";

/** Binds every action that has a key, and shows the sheet of keys. */
export function Keys() {
  const actions = useActionList();
  // Esc leaves any field, so that the next key is for the stage again.
  useEffect(() => {
    const leave = (event: KeyboardEvent) => {
      const field = event.target;
      if (event.key === "Escape" && field instanceof HTMLElement && field.matches("input, textarea, select"))
        field.blur();
    };
    window.addEventListener("keydown", leave);
    return () => window.removeEventListener("keydown", leave);
  }, []);
  return (
    <>
      {actions
        .filter((action) => action.key)
        .map((action) => (
          <Key key={action.key} action={action} />
        ))}
      <KeySheet actions={actions} />
      <SelectionMenu />
    </>
  );
}

/** Whether a key belongs to what has the focus: Enter to a button that was come to by keys, every key to an open dialog. */
export function ownKey(event: Pick<KeyboardEvent, "key" | "target"> & { shiftKey?: boolean }): boolean {
  const target = event.target;
  if (!(target instanceof Element)) return false;
  if (target.closest("[role=dialog], .MuiModal-root, [role=listbox]")) return true;
  return (
    event.key === "Enter" &&
    !event.shiftKey &&
    focusedByKeys() &&
    target.closest("button, a, [role=button], [role=tab]") !== null
  );
}

/** The same on other keyboards and for other habits. */
const ALSO: Record<string, string> = {
  "shift+f10": "shift+f10;contextmenu",
  "ctrl+z": "ctrl+z;meta+z",
  "ctrl+y": "ctrl+y;ctrl+shift+z;meta+shift+z;meta+y",
};

function Key({ action }: { action: Action }) {
  const key = action.key ?? "";
  // Signs are taken as they are typed, wherever they are on the keyboard.
  const sign = /^[[\]{}/?,.]$/.test(key);
  useHotkeys(
    // A comma separates keys, so it needs another separator to be one itself.
    ALSO[key] ?? key,
    () => {
      const why = heldBack(action, useTools.getState().tool);
      if (why) useSession.getState().say(why);
      else action.run();
    },
    {
      preventDefault: true,
      useKey: sign,
      delimiter: ";",
      ignoreEventWhen: ownKey,
      ...(/^[?{}]$/.test(key) ? { ignoreModifiers: true } : {}),
    },
    [action],
  );
  return null;
}

const DRAGS = [
  ["Left drag", "orbits around the point under the cursor"],
  ["Right drag, wheel button", "pans"],
  ["Shift with the wheel button", "turns"],
  ["Wheel", "zooms towards the cursor; Shift for fine steps, Alt to go through surfaces"],
  ["Alt with a drag", "also goes through walls"],
  ["Two fingers, pinch", "pan and zoom by touch"],
  ["Shift with a click", "adds to the selection"],
  ["Shift Enter", "points with a cross: arrows move it, Enter clicks, Shift Enter goes there, Space drags"],
  ["Right click, long touch", "lists what can be done with a component"],
  ["Double click", "goes there"],
  ["W A S D, walking or flying", "forward, left, back, right"],
  ["← →, walking or flying", "turn left and right"],
  ["↑ ↓, walking or flying", "forward and back"],
  ["Page Up, Page Down, flying", "up and down"],
  ["Shift held, walking or flying", "moves faster"],
] as const;

function KeySheet({ actions }: { actions: readonly Action[] }) {
  const shown = useTools((s) => s.keysShown);
  const show = useTools((s) => s.showKeys);
  const [typed, setTyped] = useState("");
  const wanted = typed.toLowerCase();
  const matching = (text: string) => text.toLowerCase().includes(wanted);
  return (
    <Dialog open={shown} onClose={() => show(false)} maxWidth="sm" fullWidth aria-label="Keys">
      <Box sx={{ p: 2.5, display: "grid", gap: 1.5 }}>
        <Box component="h2" sx={{ m: 0, fontFamily: face.head, fontSize: 20 }}>
          Keys
        </Box>
        <OutlinedInput
          size="small"
          autoFocus
          placeholder="Search by name or key"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          inputProps={{ "aria-label": "Search keys" }}
        />
        <Box role="region" aria-label="All keys" tabIndex={0} sx={{ maxHeight: 420, overflow: "auto" }}>
          {actions
            .filter((a) => a.key && (matching(a.name) || matching(spokenKey(a.key))))
            .map((action) => (
              <Line key={action.name} left={spokenKey(action.key ?? "")} right={action.name} />
            ))}
          {DRAGS.filter(([left, right]) => matching(left) || matching(right)).map(([left, right]) => (
            <Line key={left} left={left} right={right} />
          ))}
        </Box>
      </Box>
    </Dialog>
  );
}

function Line({ left, right }: { left: string; right: string }) {
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: "190px 1fr",
        gap: 1,
        py: 0.4,
        borderBottom: `1px solid ${tone.line}`,
        fontSize: 13.5,
      }}
    >
      <Box sx={{ fontFamily: face.figure, fontSize: 12.5 }}>{left}</Box>
      <Box>{right}</Box>
    </Box>
  );
}
