import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { type FormEvent, useState } from "react";
import type { Shapes } from "../api/client";
import { useAttempt } from "../parts/attempt";
import { counted } from "../parts/words";
import { tone } from "../style/theme";
import { Part } from "./Part";
import { SignInField } from "./SignInField";
import { useAccountActs } from "./useAccount";
import { Wrong } from "./Wrong";

/** Codes that are asked for beside the password: setting them up, recovery codes, and removing them. */
export function SecondFactor({ account }: { account: Shapes["Account"] }) {
  const [codes, setCodes] = useState<readonly string[] | null>(null);
  return (
    <Part title="Second factor">
      <Box sx={{ color: tone.soft, fontSize: 13.5, mb: 1 }}>
        {account.second_factor
          ? `You are asked for a code when you sign in. ${counted(account.recovery_left, "recovery code")} left.`
          : "Besides your password you are asked for a code that an authenticator on your phone shows."}
      </Box>
      {codes && <Codes codes={codes} close={() => setCodes(null)} />}
      {!codes && account.second_factor && <SetUp made={setCodes} />}
      {!codes && !account.second_factor && <NotYet made={setCodes} />}
    </Part>
  );
}

function NotYet({ made }: { made: (codes: readonly string[]) => void }) {
  const { begin, confirm } = useAccountActs();
  const { wrong, attempt } = useAttempt();
  const [password, setPassword] = useState("");
  const [code, setCode] = useState("");
  const begun = begin.data;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    attempt(async () => {
      if (begun) made((await confirm.mutateAsync(code)).codes);
      else await begin.mutateAsync(password);
      setPassword("");
    });
  };
  return (
    <Box component="form" onSubmit={submit} sx={{ display: "grid", gap: 1 }}>
      {begun ? (
        <>
          <Box sx={{ fontSize: 13.5 }}>Let your authenticator look at this, or type the secret into it.</Box>
          <Box
            component="img"
            src={begun.picture}
            alt="The secret as a picture of dots, for an authenticator"
            sx={{ width: 180, height: 180, bgcolor: "#ffffff" }}
          />
          <Box data-testid="secret" sx={{ fontSize: 13, userSelect: "all", overflowWrap: "anywhere" }}>
            {begun.secret}
          </Box>
          <SignInField label="Code that it shows" value={code} put={setCode} fills="one-time-code" first />
        </>
      ) : (
        <SignInField label="Your password" value={password} put={setPassword} fills="current-password" />
      )}
      <Wrong text={wrong} />
      <Button
        type="submit"
        variant="contained"
        disabled={begun ? !code.trim() : !password}
        sx={{ justifySelf: "start" }}
      >
        {begun ? "Use it from now on" : "Set it up"}
      </Button>
    </Box>
  );
}

function SetUp({ made }: { made: (codes: readonly string[]) => void }) {
  const { codes, remove } = useAccountActs();
  const { wrong, attempt } = useAttempt();
  const [password, setPassword] = useState("");
  return (
    <Box sx={{ display: "grid", gap: 1 }}>
      <SignInField label="Your password" value={password} put={setPassword} fills="current-password" />
      <Wrong text={wrong} />
      <Box sx={{ display: "flex", gap: 1 }}>
        <Button
          variant="outlined"
          disabled={!password}
          onClick={() => attempt(async () => made((await codes.mutateAsync(password)).codes))}
        >
          New recovery codes
        </Button>
        <Button
          variant="text"
          disabled={!password}
          onClick={() =>
            attempt(async () => {
              await remove.mutateAsync(password);
              setPassword("");
            })
          }
        >
          Remove it
        </Button>
      </Box>
    </Box>
  );
}

function Codes({ codes, close }: { codes: readonly string[]; close: () => void }) {
  return (
    <Box role="status" sx={{ border: `1px solid ${tone.here}`, bgcolor: tone.paper, p: 1.5 }}>
      Keep these recovery codes where only you find them. Each is good once, in place of a code. They are not
      shown again.
      <Box
        data-testid="recovery-codes"
        component="ul"
        sx={{ listStyle: "none", p: 0, my: 1, fontFamily: "monospace", fontSize: 13, userSelect: "all" }}
      >
        {codes.map((each) => (
          <li key={each}>{each}</li>
        ))}
      </Box>
      <Button variant="outlined" onClick={close}>
        I have kept them
      </Button>
    </Box>
  );
}
