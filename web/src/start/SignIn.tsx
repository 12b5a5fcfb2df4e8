import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { type FormEvent, useState } from "react";
import { answerOf, api } from "../api/client";
import { useSignedOut } from "../api/signedOut";
import { useAttempt } from "../parts/attempt";
import { tone } from "../style/theme";
import { DemoPeople } from "./DemoPeople";
import { Forgotten } from "./Forgotten";
import { Frame } from "./Frame";
import { SignInField } from "./SignInField";
import { useMe, useSigning } from "./useMe";
import { Wrong } from "./Wrong";

/** Go to the provider of accounts, and come back to the page that one came for. */
async function goElsewhere(): Promise<void> {
  const { pathname, search, hash } = window.location;
  const { address } = await answerOf(
    api.POST("/api/elsewhere/begin", { body: { back_to: `${pathname}${search}${hash}`.slice(0, 400) } }),
  );
  window.location.assign(address);
}

/** Asks who one is, in place of the page that one came for; that comes back as it was. */
export function SignIn() {
  const { signIn } = useSigning();
  const me = useMe().data;
  const demo = (me?.demo.length ?? 0) > 0;
  const elsewhere = me?.elsewhere;
  const ended = useSignedOut(({ times, byOneself }) => times > 0 && !byOneself);
  const { wrong, attempt } = useAttempt();
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  const [code, setCode] = useState<string | null>(null);
  const [forgotten, setForgotten] = useState(false);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    attempt(async () => {
      if (await signIn(name, password, code ?? "")) setCode("");
    });
  };
  // Another name or password may want no code, or that of somebody else.
  const anew = (put: (text: string) => void) => (text: string) => {
    put(text);
    setCode(null);
  };
  if (forgotten)
    return (
      <Frame title="A new password">
        <Forgotten name={name} close={() => setForgotten(false)} />
      </Frame>
    );
  return (
    <Frame title="Sign in">
      {ended && (
        <Box role="status" sx={{ borderLeft: `3px solid ${tone.here}`, pl: 1.5, mb: 2, maxWidth: 520 }}>
          You are not signed in any more: you signed out in another tab, or your time or your link has ended.
          Sign in to go on where you were.
        </Box>
      )}
      <DemoPeople />
      <Box component="form" onSubmit={submit} sx={{ display: "grid", gap: 1.5, maxWidth: 380, mt: 2 }}>
        <SignInField label="Name" value={name} put={anew(setName)} fills="username" first={!demo} />
        <SignInField label="Password" value={password} put={anew(setPassword)} fills="current-password" />
        {code !== null && (
          <SignInField
            label="Code"
            value={code}
            put={setCode}
            fills="one-time-code"
            hint="The one that your authenticator shows now, or a recovery code."
            first
          />
        )}
        <Wrong text={wrong} />
        <Button
          type="submit"
          variant="contained"
          disabled={!name.trim() || !password || code?.trim() === ""}
          sx={{ justifySelf: "start" }}
        >
          Sign in
        </Button>
        {elsewhere && (
          <Button variant="outlined" sx={{ justifySelf: "start" }} onClick={() => attempt(goElsewhere)}>
            Sign in with {elsewhere}
          </Button>
        )}
        <Button variant="text" sx={{ justifySelf: "start" }} onClick={() => setForgotten(true)}>
          Password forgotten
        </Button>
        <Box sx={{ color: tone.soft, fontSize: 13 }}>
          Not invited yet? Ask an owner of your project, or of this server.
        </Box>
      </Box>
    </Frame>
  );
}
