import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import { Link } from "react-router";
import { tone } from "../style/theme";
import { useMe } from "./useMe";

/** A link that was made, and what it is for; none where it was mailed. */
export interface MadeLink {
  address: string | null;
  /** What one does with it, as a sentence. */
  says: string;
}

/** A link that was made, to be handed on; it is shown this once, or was mailed. */
export function HandOn({ link, close }: { link: MadeLink; close: () => void }) {
  return (
    <Box
      role="status"
      sx={{ border: `1px solid ${tone.here}`, bgcolor: tone.paper, p: 1.5, mt: 2, maxWidth: 640 }}
    >
      {link.says}
      {link.address === null ? <Mailed /> : <Shown address={link.address} />}{" "}
      <Button variant="text" onClick={close}>
        Close
      </Button>
    </Box>
  );
}

function Mailed() {
  const mailbox = useMe().data?.mailbox ?? false;
  return mailbox ? (
    <Box sx={{ "& a": { color: tone.here } }}>
      No server for mail is set: the mail is in the <Link to="/mailbox">mailbox of this server</Link>.
    </Box>
  ) : null;
}

function Shown({ address }: { address: string }) {
  const [copied, setCopied] = useState<boolean | null>(null);
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(address);
      setCopied(true);
    } catch {
      setCopied(false);
    }
  };
  return (
    <>
      {" "}
      It is not shown again.
      <Box
        data-testid="link-to-hand-on"
        sx={{ overflowWrap: "anywhere", my: 1, userSelect: "all", fontSize: 13 }}
      >
        {address}
      </Box>
      <Button variant="outlined" onClick={() => void copy()}>
        {copied ? "Copied" : "Copy"}
      </Button>
      {copied === false && (
        <Box role="alert" sx={{ my: 1 }}>
          This browser does not let the page copy. Click on the link, and copy it by the keys.
        </Box>
      )}
    </>
  );
}
