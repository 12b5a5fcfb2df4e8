import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { type FormEvent, useState } from "react";
import { useAttempt } from "../parts/attempt";
import { tone } from "../style/theme";
import { DemoPeople } from "./DemoPeople";
import { Frame } from "./Frame";
import { SignInField } from "./SignInField";
import { useMe, useSigning } from "./useMe";
import { Wrong } from "./Wrong";

/** Asks who one is, in place of the page that one came for; that comes back as it was. */
export function SignIn() {
  const { signIn } = useSigning();
  const demo = (useMe().data?.demo.length ?? 0) > 0;
  const { wrong, attempt } = useAttempt();
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  const submit = (event: FormEvent) => {
    event.preventDefault();
    attempt(() => signIn(name, password));
  };
  return (
    <Frame title="Sign in">
      <DemoPeople />
      <Box component="form" onSubmit={submit} sx={{ display: "grid", gap: 1.5, maxWidth: 380, mt: 2 }}>
        <SignInField label="Name" value={name} put={setName} fills="username" first={!demo} />
        <SignInField label="Password" value={password} put={setPassword} fills="current-password" />
        <Wrong text={wrong} />
        <Button
          type="submit"
          variant="contained"
          disabled={!name.trim() || !password}
          sx={{ justifySelf: "start" }}
        >
          Sign in
        </Button>
        <Box sx={{ color: tone.soft, fontSize: 13 }}>
          Forgotten, or not invited yet? Whoever runs this server can send you a link.
        </Box>
      </Box>
    </Frame>
  );
}
