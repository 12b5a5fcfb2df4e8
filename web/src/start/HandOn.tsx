import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import { tone } from "../style/theme";

/** A link that was made, and what it is for. */
export interface MadeLink {
  address: string;
  /** What one does with it, as a sentence. */
  says: string;
}

/** A link that was made, to be handed on; it is shown this once. */
export function HandOn({ link, close }: { link: MadeLink; close: () => void }) {
  const [copied, setCopied] = useState(false);
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(link.address);
      setCopied(true);
    } catch {
      setCopied(false);
    }
  };
  return (
    <Box
      role="status"
      sx={{ border: `1px solid ${tone.here}`, bgcolor: tone.paper, p: 1.5, mt: 2, maxWidth: 640 }}
    >
      {link.says} It is not shown again.
      <Box
        data-testid="link-to-hand-on"
        sx={{ overflowWrap: "anywhere", my: 1, userSelect: "all", fontSize: 13 }}
      >
        {link.address}
      </Box>
      <Button variant="outlined" onClick={() => void copy()}>
        {copied ? "Copied" : "Copy"}
      </Button>{" "}
      <Button variant="text" onClick={close}>
        Close
      </Button>
    </Box>
  );
}
