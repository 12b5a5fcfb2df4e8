import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { useLocation, useNavigate } from "react-router";
import { answerOf, api, type Shapes } from "../api/client";
import { useAttempt } from "../parts/attempt";
import { tone } from "../style/theme";
import { Frame } from "./Frame";
import { SignInField } from "./SignInField";
import { useSigning } from "./useMe";
import { Wrong } from "./Wrong";

/** Where a link leads that is good once: one sets a password and is signed in; the first owner says their names too. */
export function Welcome() {
  const secret = useLocation().hash.slice(1);
  const { data, error } = useQuery({
    queryKey: ["link", secret],
    queryFn: () => answerOf(api.POST("/api/links/look", { body: { secret } })),
    enabled: secret !== "",
    staleTime: Infinity,
  });
  if (!secret)
    return <Frame title="Welcome">This link is not whole. Copy all of it, and open it again.</Frame>;
  if (error) return <Frame title="Welcome">{error.message}</Frame>;
  if (!data) return <Frame title="Welcome">Loading…</Frame>;
  return <Begin key={secret} secret={secret} first={data.kind === "first_owner"} known={data} />;
}

function Begin(props: { secret: string; first: boolean; known: Shapes["LinkShown"] }) {
  const { secret, first, known } = props;
  const { use } = useSigning();
  const go = useNavigate();
  const { wrong, attempt } = useAttempt();
  const [name, setName] = useState(known.name);
  const [key, setKey] = useState(known.key);
  const [password, setPassword] = useState("");
  const [code, setCode] = useState("");
  const submit = (event: FormEvent) => {
    event.preventDefault();
    attempt(async () => {
      await use({ secret, password, key, name, code });
      await go("/", { replace: true });
    });
  };
  return (
    <Frame title={first ? "Welcome to Stair Path" : `Welcome, ${known.name}`}>
      <Box sx={{ color: tone.soft, mb: 2 }}>
        {first
          ? "You are the first here and will own this server. From now on everybody signs in."
          : `You sign in as ${known.key}. Choose a password.`}
      </Box>
      <Box component="form" onSubmit={submit} sx={{ display: "grid", gap: 1.5, maxWidth: 380 }}>
        {first && (
          <>
            <SignInField
              label="Your name"
              value={name}
              put={setName}
              fills="name"
              hint="It is shown with what you save."
              first
            />
            <SignInField
              label="Name to sign in with"
              value={key}
              put={setKey}
              fills="username"
              hint="Such as your mail address."
            />
          </>
        )}
        <SignInField
          label="Password"
          value={password}
          put={setPassword}
          fills="new-password"
          hint="At least 12 characters; a few words are easy to remember."
          first={!first}
        />
        {known.asks_code && (
          <SignInField
            label="Code"
            value={code}
            put={setCode}
            fills="one-time-code"
            hint="The one that your authenticator shows now, or a recovery code."
          />
        )}
        <Wrong text={wrong} />
        <Button type="submit" variant="contained" disabled={!password} sx={{ justifySelf: "start" }}>
          Begin
        </Button>
      </Box>
    </Frame>
  );
}
