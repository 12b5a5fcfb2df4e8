import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { type FormEvent, useState } from "react";
import { spokenDay } from "../open/dates";
import { useAttempt } from "../parts/attempt";
import { Tick } from "../parts/Tick";
import { tone } from "../style/theme";
import { Frame } from "./Frame";
import { SignInField } from "./SignInField";
import { useInviting, usePeople } from "./usePeople";

interface Link {
  name: string;
  address: string;
}

/** Everybody who may sign in, and inviting more of them; for those who own the server. */
export function PeoplePage() {
  const { data, error } = usePeople();
  const { reset } = useInviting();
  const { wrong, attempt } = useAttempt();
  const [link, setLink] = useState<Link | null>(null);
  return (
    <Frame title="People">
      <Box sx={{ color: tone.soft, mb: 2 }}>Whoever is listed here may sign in and work in all projects.</Box>
      {error && <Box sx={{ color: tone.wrong }}>{error.message}</Box>}
      {data && (
        <>
          <Invite made={setLink} />
          {link && <HandOn key={link.address} link={link} close={() => setLink(null)} />}
          {wrong && <Box sx={{ color: tone.wrong, mt: 1 }}>{wrong}</Box>}
          <Box component="ul" sx={{ listStyle: "none", p: 0, mt: 3, maxWidth: 640 }}>
            {data.map(({ person, begun, seen_at }) => (
              <Box
                component="li"
                key={person.key}
                data-testid="person"
                sx={{
                  borderTop: `1px solid ${tone.line}`,
                  py: 1,
                  display: "flex",
                  gap: 2,
                  alignItems: "baseline",
                  overflowWrap: "anywhere",
                }}
              >
                <Box sx={{ flex: 1 }}>
                  <Box sx={{ fontWeight: 600 }}>{person.name}</Box>
                  <Box sx={{ color: tone.soft, fontSize: 13 }}>
                    {person.key}
                    {person.owner && ", owns this server"}
                    {begun ? seen_at && `, seen on ${spokenDay(seen_at)}` : ", has not set a password yet"}
                  </Box>
                </Box>
                <Button
                  variant="text"
                  onClick={() =>
                    attempt(async () =>
                      setLink({ name: person.name, address: await reset.mutateAsync(person.key) }),
                    )
                  }
                >
                  New link
                </Button>
              </Box>
            ))}
          </Box>
        </>
      )}
    </Frame>
  );
}

function Invite({ made }: { made: (link: Link) => void }) {
  const { invite } = useInviting();
  const { wrong, attempt } = useAttempt();
  const [name, setName] = useState("");
  const [key, setKey] = useState("");
  const [owner, setOwner] = useState(false);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    attempt(async () => {
      made({ name: name.trim(), address: await invite.mutateAsync({ name, key, owner }) });
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
        hint="Such as their mail address."
      />
      <Tick label="owns this server, and invites others" on={owner} set={setOwner} />
      {wrong && (
        <Box role="alert" sx={{ color: tone.wrong }}>
          {wrong}
        </Box>
      )}
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

/** A link that was made, to be handed on; it is shown this once. */
function HandOn({ link, close }: { link: Link; close: () => void }) {
  const [copied, setCopied] = useState(false);
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(link.address);
      setCopied(true);
    } catch {
      setCopied(false);
    }
  };
  return (
    <Box
      role="status"
      sx={{ border: `1px solid ${tone.here}`, bgcolor: tone.paper, p: 1.5, mt: 2, maxWidth: 640 }}
    >
      Send this link to {link.name}. It sets their password, once and within a week, and is not shown again.
      <Box
        data-testid="link-to-hand-on"
        sx={{ overflowWrap: "anywhere", my: 1, userSelect: "all", fontSize: 13 }}
      >
        {link.address}
      </Box>
      <Button variant="outlined" onClick={() => void copy()}>
        {copied ? "Copied" : "Copy"}
      </Button>{" "}
      <Button variant="text" onClick={close}>
        Close
      </Button>
    </Box>
  );
}
