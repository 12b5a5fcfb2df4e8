import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { type FormEvent, useState } from "react";
import type { Shapes } from "../api/client";
import { spokenDay } from "../open/dates";
import { type Attempt, useAttempt } from "../parts/attempt";
import { Tick } from "../parts/Tick";
import { tone } from "../style/theme";
import { Frame } from "./Frame";
import { HandOn, type MadeLink } from "./HandOn";
import { PersonForm } from "./PersonForm";
import { SignInField } from "./SignInField";
import { useInviting, usePeople } from "./usePeople";
import { Wrong } from "./Wrong";

/** A link with which somebody sets their password; without one it was mailed to them. */
export function linkFor(name: string, address: string | null): MadeLink {
  return address === null
    ? { address, says: `${name} was invited by mail.` }
    : { address, says: `Send this link to ${name}. It sets their password, once and within a week.` };
}

/** Everybody who may sign in, and inviting more of them; for those who own the server. */
export function PeoplePage() {
  const { data, error } = usePeople();
  const { wrong, attempt } = useAttempt();
  const [link, setLink] = useState<MadeLink | null>(null);
  return (
    <Frame title="People">
      <Box sx={{ color: tone.soft, mb: 2 }}>
        Everybody here may sign in. What they may do is said in each project, by its owners.
      </Box>
      <Wrong text={error?.message} />
      {data && (
        <>
          <Invite made={setLink} />
          {link && <HandOn key={link.says} link={link} close={() => setLink(null)} />}
          <Wrong text={wrong} />
          <Box component="ul" sx={{ listStyle: "none", p: 0, mt: 3, maxWidth: 640 }}>
            {data.map((each) => (
              <Row key={each.id} each={each} made={setLink} attempt={attempt} />
            ))}
          </Box>
        </>
      )}
    </Frame>
  );
}

function Row(props: { each: Shapes["ListedPerson"]; made: (link: MadeLink) => void; attempt: Attempt }) {
  const { each, made, attempt } = props;
  const { person, begun, seen_at } = each;
  const { reset } = useInviting();
  const [open, setOpen] = useState(false);
  const group = [person.firm, person.discipline].filter(Boolean).join(", ");
  return (
    <Box
      component="li"
      data-testid="person"
      sx={{ borderTop: `1px solid ${tone.line}`, py: 1, overflowWrap: "anywhere" }}
    >
      <Box sx={{ display: "flex", gap: 2, alignItems: "baseline" }}>
        <Box sx={{ flex: 1 }}>
          <Box sx={{ fontWeight: 600 }}>
            {person.name}
            {group && (
              <Box component="span" sx={{ fontWeight: 400 }}>
                , {group}
              </Box>
            )}
          </Box>
          <Box sx={{ color: tone.soft, fontSize: 13 }}>
            {person.key}
            {person.owner ? ", owns this server" : person.makes_projects && ", makes projects"}
            {each.second_factor && ", with a second factor"}
            {begun ? seen_at && `, seen on ${spokenDay(seen_at)}` : ", has not set a password yet"}
          </Box>
        </Box>
        <Button variant="text" aria-expanded={open} onClick={() => setOpen(!open)}>
          Change
        </Button>
        <Button
          variant="text"
          onClick={() => attempt(async () => made(linkFor(person.name, await reset.mutateAsync(person.key))))}
        >
          New link
        </Button>
      </Box>
      {open && <PersonForm each={each} done={() => setOpen(false)} />}
    </Box>
  );
}

function Invite({ made }: { made: (link: MadeLink) => void }) {
  const { invite } = useInviting();
  const { wrong, attempt } = useAttempt();
  const [name, setName] = useState("");
  const [key, setKey] = useState("");
  const [owner, setOwner] = useState(false);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    attempt(async () => {
      made(linkFor(name.trim(), await invite.mutateAsync({ name, key, owner })));
      setName("");
      setKey("");
      setOwner(false);
    });
  };
  return (
    <Box component="form" onSubmit={submit} sx={{ display: "grid", gap: 1, maxWidth: 380 }}>
      <SignInField label="Name of who is invited" value={name} put={setName} fills="off" />
      <SignInField
        label="Name to sign in with"
        value={key}
        put={setKey}
        fills="off"
        hint="Their mail address, so that the invitation is mailed to them; or another name."
      />
      <Tick label="owns this server, and invites others" on={owner} set={setOwner} />
      <Wrong text={wrong} />
      <Button
        type="submit"
        variant="contained"
        disabled={!name.trim() || !key.trim()}
        sx={{ justifySelf: "start" }}
      >
        Invite
      </Button>
    </Box>
  );
}
