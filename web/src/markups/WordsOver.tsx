import Box from "@mui/material/Box";
import { useEffect, useRef, useState } from "react";
import { COLOURS, useMarking } from "../open/markups/marking";
import { usePlacing } from "../open/markups/usePlacing";
import { tone } from "../style/theme";

/** Asks for the words of a text or callout where they are to stand; Enter or a click elsewhere keeps them, Esc gives them up. */
export function WordsOver() {
  const wanting = useMarking((s) => s.wanting);
  const colour = useMarking((s) => COLOURS[s.style.colour].colour);
  const { place } = usePlacing();
  const [text, setText] = useState("");
  const field = useRef<HTMLTextAreaElement>(null);
  const placing = useRef<typeof wanting>(null);
  useEffect(() => {
    setText("");
    if (wanting) field.current?.focus();
  }, [wanting]);
  if (!wanting) return null;
  // By then another place may have been clicked, which has its own words.
  const put = () => useMarking.setState((s) => (s.wanting === wanting ? { wanting: null } : s));
  const done = async () => {
    const { kind, drawn, through_m } = wanting;
    if (placing.current === wanting) return;
    placing.current = wanting;
    // What was typed stays until it is kept.
    if (!text.trim() || (await place(kind, drawn, through_m, text.trim()))) put();
    placing.current = null;
  };
  return (
    <Box
      component="textarea"
      ref={field}
      rows={2}
      aria-label="Text of the markup"
      placeholder="Text, then Enter"
      value={text}
      onChange={(event: React.ChangeEvent<HTMLTextAreaElement>) => setText(event.target.value)}
      onBlur={() => {
        // Another window, which leaves the field what it is, may be where the words are copied from.
        if (document.activeElement !== field.current) void done();
      }}
      onKeyDown={(event: React.KeyboardEvent) => {
        event.stopPropagation();
        if (event.key === "Escape") put();
        if (event.key === "Enter" && !event.shiftKey) {
          event.preventDefault();
          void done();
        }
      }}
      sx={{
        position: "absolute",
        left: Math.max(4, wanting.at.x - 90),
        top: Math.max(4, wanting.at.y - 22),
        width: 180,
        zIndex: 5,
        fontFamily: "inherit",
        fontSize: 14,
        color: tone.ink,
        bgcolor: tone.paper,
        border: `2px solid ${colour}`,
        p: 0.5,
        resize: "none",
      }}
    />
  );
}
