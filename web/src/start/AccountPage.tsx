import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import NativeSelect from "@mui/material/NativeSelect";
import { type FormEvent, useState } from "react";
import type { Shapes } from "../api/client";
import { LANGUAGES } from "../api/locale";
import { initials, NO_COLOUR } from "../api/person";
import { UNIT_NAMES, UNITS } from "../open/unitNames";
import { useAttempt } from "../parts/attempt";
import { tone } from "../style/theme";
import { Frame } from "./Frame";
import { Kept } from "./Kept";
import { Part } from "./Part";
import { SecondFactor } from "./SecondFactor";
import { SignInField } from "./SignInField";
import { useAccount, useAccountActs } from "./useAccount";
import { Wrong } from "./Wrong";

/** What somebody sets of themselves: initials, colour and unit, password and second factor. */
export function AccountPage() {
  const { data, error } = useAccount();
  return (
    <Frame title="Your account">
      <Wrong text={error?.message} />
      {data && (
        <>
          <Box sx={{ color: tone.soft, mb: 2 }}>
            {[data.name, data.firm, data.discipline].filter(Boolean).join(", ")}. You sign in as {data.key}.
          </Box>
          <Shown account={data} />
          {data.has_password ? (
            <>
              <Password />
              <SecondFactor account={data} />
            </>
          ) : (
            <Part title="Password">
              <Box sx={{ color: tone.soft, fontSize: 13.5 }}>The people of the demo have none.</Box>
            </Part>
          )}
          <Kept removable={data.has_password} />
        </>
      )}
    </Frame>
  );
}

function Shown({ account }: { account: Shapes["Account"] }) {
  const { change } = useAccountActs();
  const { wrong, attempt } = useAttempt();
  const [wish, setWish] = useState({
    initials: account.initials,
    colour: account.colour,
    units: account.units,
    language: account.language,
  });
  const [saved, setSaved] = useState(false);
  const put = (part: Partial<typeof wish>) => {
    setWish({ ...wish, ...part });
    setSaved(false);
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    attempt(async () => {
      await change.mutateAsync(wish);
      setSaved(true);
    });
  };
  return (
    <Part title="How you are shown">
      <Box component="form" onSubmit={submit} sx={{ display: "grid", gap: 1 }}>
        <SignInField
          label="Initials"
          value={wish.initials}
          put={(text) => put({ initials: text })}
          fills="off"
          hint={`At most 3 letters. Without any they are ${initials(account.name)}.`}
        />
        <Box component="label" sx={{ fontSize: 13, color: tone.soft }}>
          Colour
          <Box
            component="input"
            type="color"
            value={wish.colour || NO_COLOUR}
            onChange={(event: React.ChangeEvent<HTMLInputElement>) => put({ colour: event.target.value })}
            sx={{ display: "block", width: 64, height: 32, p: 0, border: `1px solid ${tone.line}` }}
          />
        </Box>
        <Box component="label" sx={{ fontSize: 13, color: tone.soft }}>
          Measure in
          <NativeSelect fullWidth value={wish.units} onChange={(event) => put({ units: event.target.value })}>
            <option value="">as chosen in each browser</option>
            {UNIT_NAMES.map((name) => (
              <option key={name} value={name}>
                {UNITS[name]}
              </option>
            ))}
          </NativeSelect>
        </Box>
        <Box component="label" sx={{ fontSize: 13, color: tone.soft }}>
          Write dates and numbers as in
          <NativeSelect
            fullWidth
            value={wish.language}
            onChange={(event) => put({ language: event.target.value })}
          >
            <option value="">the language of each browser</option>
            {LANGUAGES.map(([code, called]) => (
              <option key={code} value={code}>
                {called}
              </option>
            ))}
          </NativeSelect>
        </Box>
        <Wrong text={wrong} />
        <Button type="submit" variant="contained" sx={{ justifySelf: "start" }}>
          {saved ? "Saved" : "Save"}
        </Button>
      </Box>
    </Part>
  );
}

function Password() {
  const { password } = useAccountActs();
  const { wrong, attempt } = useAttempt();
  const [old, setOld] = useState("");
  const [fresh, setFresh] = useState("");
  const [done, setDone] = useState(false);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    attempt(async () => {
      await password.mutateAsync({ old, new: fresh });
      setOld("");
      setFresh("");
      setDone(true);
    });
  };
  return (
    <Part title="Password">
      <Box component="form" onSubmit={submit} sx={{ display: "grid", gap: 1 }}>
        <SignInField label="Password until now" value={old} put={setOld} fills="current-password" />
        <SignInField
          label="New password"
          value={fresh}
          put={(text) => {
            setFresh(text);
            setDone(false);
          }}
          fills="new-password"
          hint="At least 12 characters; a few words are easy to remember."
        />
        <Wrong text={wrong} />
        {done && (
          <Box role="status" sx={{ fontSize: 13.5 }}>
            It is changed. Everywhere else you are signed out, and access for other programs has ended.
          </Box>
        )}
        <Button type="submit" variant="contained" disabled={!old || !fresh} sx={{ justifySelf: "start" }}>
          Change the password
        </Button>
      </Box>
    </Part>
  );
}
