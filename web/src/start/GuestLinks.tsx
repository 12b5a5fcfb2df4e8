import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import NativeSelect from "@mui/material/NativeSelect";
import { type FormEvent, useState } from "react";
import { spokenDay } from "../open/dates";
import { useAttempt } from "../parts/attempt";
import { tone } from "../style/theme";
import { EndingRow } from "./EndingRow";
import { HandOn, type MadeLink } from "./HandOn";
import { SignInField } from "./SignInField";
import { useGuestLinks, useMemberActs } from "./useMembers";
import { Wrong } from "./Wrong";

const LASTS: readonly [number, string][] = [
  [1, "for a day"],
  [7, "for a week"],
  [30, "for 30 days"],
  [90, "for 90 days"],
];

/** Links with which people without an account look at the project, each with its end. */
export function GuestLinks({ projectId }: { projectId: string }) {
  const { data, error } = useGuestLinks(projectId);
  const { endLink, makeLink } = useMemberActs(projectId);
  const { wrong, attempt } = useAttempt();
  const [name, setName] = useState("");
  const [days, setDays] = useState(7);
  const [made, setMade] = useState<(MadeLink & { id: string }) | null>(null);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    attempt(async () => {
      const { link, secret } = await makeLink.mutateAsync({ name, days });
      setMade({
        id: link.id,
        address: `${window.location.origin}/guest#${secret}`,
        says: `Anybody with this link looks at the project as ${link.name} until ${spokenDay(link.ends_at)}.`,
      });
      setName("");
    });
  };
  return (
    <Box sx={{ mt: 4 }}>
      <Box component="h2" sx={{ fontSize: 18, fontWeight: 600, m: 0 }}>
        Guest links
      </Box>
      <Box sx={{ color: tone.soft, fontSize: 13.5, mb: 1 }}>
        With a guest link people without an account look at this project and change nothing.
      </Box>
      <Box component="form" onSubmit={submit} sx={{ display: "grid", gap: 1, maxWidth: 380 }}>
        <SignInField
          label="For whom"
          value={name}
          put={setName}
          fills="off"
          hint="Such as: client's board."
        />
        <Box sx={{ display: "flex", gap: 1, alignItems: "center" }}>
          <NativeSelect
            value={days}
            inputProps={{ "aria-label": "How long the link lasts" }}
            onChange={(event) => setDays(Number(event.target.value))}
          >
            {LASTS.map(([each, called]) => (
              <option key={each} value={each}>
                {called}
              </option>
            ))}
          </NativeSelect>
          <Button type="submit" variant="outlined" disabled={!name.trim()} sx={{ color: tone.ink }}>
            Make a guest link
          </Button>
        </Box>
      </Box>
      <Wrong text={error?.message || wrong} />
      {made && data?.some(({ id }) => id === made.id) && (
        <HandOn key={made.id} link={made} close={() => setMade(null)} />
      )}
      <Box component="ul" sx={{ listStyle: "none", p: 0, maxWidth: 760 }}>
        {data?.map((link) => (
          <EndingRow
            key={link.id}
            testId="guest-link"
            name={link.name}
            says={`until ${spokenDay(link.ends_at)}, made by ${link.made_by}`}
            usedAt={link.used_at}
            about={`End the link of ${link.name}`}
            end={() => attempt(() => endLink.mutateAsync(link.id))}
          />
        ))}
      </Box>
    </Box>
  );
}
