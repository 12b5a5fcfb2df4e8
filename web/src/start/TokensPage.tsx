import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import NativeSelect from "@mui/material/NativeSelect";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answerOf, api, type Shapes } from "../api/client";
import { ROLES } from "../api/constants";
import { spokenDay } from "../open/dates";
import { useAttempt } from "../parts/attempt";
import { tone } from "../style/theme";
import { EndingRow } from "./EndingRow";
import { Frame } from "./Frame";
import { Granted } from "./Granted";
import { HandOn, type MadeLink } from "./HandOn";
import { SignInField } from "./SignInField";
import { Wrong } from "./Wrong";

const TOKENS = ["tokens"] as const;
const LASTS = [7, 30, 90, 365] as const;
/** How far a token may go; nobody lets another program own a project. */
const SCOPES = ROLES.flatMap(({ role, name }) => (role === "own" ? [] : [{ role, name }]));
const scopeOf = (text: string) => SCOPES.find(({ role }) => role === text)?.role ?? "look";

/** Tokens with which other programs ask the server as one: made, listed and ended. */
export function TokensPage() {
  const client = useQueryClient();
  const { data, error } = useQuery({ queryKey: TOKENS, queryFn: () => answerOf(api.GET("/api/tokens")) });
  const onSettled = () => client.invalidateQueries({ queryKey: TOKENS });
  const make = useMutation({
    mutationFn: (body: Shapes["NewToken"]) => answerOf(api.POST("/api/tokens", { body })),
    onSettled,
  });
  const end = useMutation({
    mutationFn: (token_id: string) =>
      answerOf(api.DELETE("/api/tokens/{token_id}", { params: { path: { token_id } } })),
    onSettled,
  });
  const { wrong, attempt } = useAttempt();
  const [shown, setShown] = useState<(MadeLink & { id: string }) | null>(null);
  return (
    <Frame title="Access for other programs">
      <Box sx={{ color: tone.soft, mb: 2 }}>
        A program that sends one of these tokens (Authorization: Bearer) does what you may, and no more than
        the token says.
      </Box>
      <MakeToken
        make={(body) =>
          attempt(async () => {
            const { token, secret } = await make.mutateAsync(body);
            setShown({
              id: token.id,
              address: secret,
              says: `This is the token ${token.name}. Keep it like a password.`,
            });
          })
        }
      />
      {shown && data?.some(({ id }) => id === shown.id) && (
        <HandOn key={shown.id} link={shown} close={() => setShown(null)} />
      )}
      <Wrong text={error?.message || wrong} />
      {data?.length === 0 && <Box sx={{ mt: 2 }}>No tokens yet.</Box>}
      <Box component="ul" sx={{ listStyle: "none", p: 0, mt: 3, maxWidth: 640 }}>
        {data?.map((token) => (
          <EndingRow
            key={token.id}
            testId="token"
            name={token.name}
            says={`${ROLES.find(({ role }) => role === token.scope)?.name}, until ${spokenDay(token.ends_at)}`}
            usedAt={token.used_at}
            about={`End the token ${token.name}`}
            end={() => attempt(() => end.mutateAsync(token.id))}
          />
        ))}
      </Box>
      <Granted />
    </Frame>
  );
}

function MakeToken({ make }: { make: (wish: Shapes["NewToken"]) => void }) {
  const [name, setName] = useState("");
  const [scope, setScope] = useState<Shapes["NewToken"]["scope"]>("comment");
  const [days, setDays] = useState<number>(90);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    make({ name, scope, days });
    setName("");
  };
  return (
    <Box component="form" onSubmit={submit} sx={{ display: "grid", gap: 1, maxWidth: 380 }}>
      <SignInField
        label="Name of the program"
        value={name}
        put={setName}
        fills="off"
        hint="Such as: topics on the site tablet."
      />
      <Box sx={{ display: "flex", gap: 1 }}>
        <NativeSelect
          value={scope}
          inputProps={{ "aria-label": "What it may" }}
          onChange={(event) => setScope(scopeOf(event.target.value))}
        >
          {SCOPES.map(({ role, name: called }) => (
            <option key={role} value={role}>
              {called}
            </option>
          ))}
        </NativeSelect>
        <NativeSelect
          value={days}
          inputProps={{ "aria-label": "How long the token lasts" }}
          onChange={(event) => setDays(Number(event.target.value))}
        >
          {LASTS.map((each) => (
            <option key={each} value={each}>
              for {each} days
            </option>
          ))}
        </NativeSelect>
      </Box>
      <Button type="submit" variant="contained" disabled={!name.trim()} sx={{ justifySelf: "start" }}>
        Make a token
      </Button>
    </Box>
  );
}
