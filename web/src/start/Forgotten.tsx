import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { type FormEvent, useState } from "react";
import { Link } from "react-router";
import { answerOf, api } from "../api/client";
import { useAttempt } from "../parts/attempt";
import { tone } from "../style/theme";
import { SignInField } from "./SignInField";
import { useMe } from "./useMe";
import { Wrong } from "./Wrong";

/** Asks for a mail with a link to set a new password. Whether there is such a person is not said. */
export function Forgotten({ name, close }: { name: string; close: () => void }) {
  const { wrong, attempt } = useAttempt();
  const mailbox = useMe().data?.mailbox ?? false;
  const [key, setKey] = useState(name);
  const [asked, setAsked] = useState("");
  const submit = (event: FormEvent) => {
    event.preventDefault();
    attempt(async () => {
      await answerOf(api.POST("/api/links/new-password", { body: { key } }));
      setAsked(key.trim());
    });
  };
  if (asked)
    return (
      <Box role="status" sx={{ maxWidth: 380, "& a": { color: tone.here } }}>
        If somebody signs in as {asked} and that is a mail address, a link is on its way to it.
        {mailbox && (
          <>
            {" "}
            Look into the <Link to="/mailbox">mailbox of this server</Link>.
          </>
        )}
        <Box>
          <Button variant="text" onClick={close}>
            Back to signing in
          </Button>
        </Box>
      </Box>
    );
  return (
    <Box component="form" onSubmit={submit} sx={{ display: "grid", gap: 1.5, maxWidth: 380 }}>
      <SignInField
        label="Mail address that you sign in with"
        value={key}
        put={setKey}
        fills="username"
        hint="Who signs in with another name asks an owner of this server."
        first
      />
      <Wrong text={wrong} />
      <Box sx={{ display: "flex", gap: 1 }}>
        <Button type="submit" variant="contained" disabled={!key.trim()}>
          Send me a link
        </Button>
        <Button variant="text" onClick={close}>
          Cancel
        </Button>
      </Box>
    </Box>
  );
}
