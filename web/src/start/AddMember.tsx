import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import NativeSelect from "@mui/material/NativeSelect";
import { type FormEvent, useState } from "react";
import type { Shapes } from "../api/client";
import { ROLES } from "../api/constants";
import { useAttempt } from "../parts/attempt";
import { DisciplineField } from "./DisciplineField";
import { HandOn, type MadeLink } from "./HandOn";
import { linkFor } from "./PeoplePage";
import { roleOf } from "./roleOf";
import { SignInField } from "./SignInField";
import { useMemberActs } from "./useMembers";
import { welcomeAddress } from "./usePeople";
import { Wrong } from "./Wrong";

type Kind = Shapes["NewMember"]["kind"];
const KINDS: readonly [Kind, string][] = [
  ["person", "A person"],
  ["firm", "All of a firm"],
  ["discipline", "All of a discipline"],
];
const NOBODY = { named: "", name: "" };

/** Lets somebody into the project: a person, who is invited where they are new, a firm or a discipline. */
export function AddMember({ projectId }: { projectId: string }) {
  const { add } = useMemberActs(projectId);
  const { wrong, attempt } = useAttempt();
  const [kind, setKind] = useState<Kind>("person");
  const [role, setRole] = useState<Shapes["NewRole"]["role"]>("comment");
  const [who, setWho] = useState(NOBODY);
  const [link, setLink] = useState<MadeLink | null>(null);
  const put = (part: Partial<typeof who>) => setWho({ ...who, ...part });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    setLink(null);
    attempt(async () => {
      const { member, secret } = await add.mutateAsync({ kind, role, ...who });
      if (secret || !member.begun) setLink(linkFor(member.name, secret ? welcomeAddress(secret) : null));
      setWho(NOBODY);
    });
  };
  return (
    <>
      <Box component="form" onSubmit={submit} sx={{ display: "grid", gap: 1, maxWidth: 380 }}>
        <Box component="h2" sx={{ fontSize: 18, fontWeight: 600, m: 0 }}>
          Add somebody
        </Box>
        <Box sx={{ display: "flex", gap: 1 }}>
          <NativeSelect
            value={kind}
            inputProps={{ "aria-label": "Whom to add" }}
            onChange={(event) => {
              setKind(KINDS.find(([each]) => each === event.target.value)?.[0] ?? "person");
              setWho(NOBODY);
            }}
          >
            {KINDS.map(([each, called]) => (
              <option key={each} value={each}>
                {called}
              </option>
            ))}
          </NativeSelect>
          <NativeSelect
            value={role}
            inputProps={{ "aria-label": "What they may" }}
            onChange={(event) => setRole(roleOf(event.target.value))}
          >
            {ROLES.map(({ role: each, name }) => (
              <option key={each} value={each}>
                {name}
              </option>
            ))}
          </NativeSelect>
        </Box>
        {kind === "person" && (
          <>
            <SignInField
              label="Name to sign in with"
              value={who.named}
              put={(named) => put({ named })}
              fills="off"
              hint="Such as their mail address."
            />
            <SignInField
              label="Name"
              value={who.name}
              put={(name) => put({ name })}
              fills="off"
              hint="Needed to invite somebody who does not sign in here yet."
            />
          </>
        )}
        {kind === "firm" && (
          <SignInField
            label="Firm"
            value={who.named}
            put={(named) => put({ named })}
            fills="off"
            hint="As it stands with its people; those who own the server say who is of which firm."
          />
        )}
        {kind === "discipline" && (
          <DisciplineField value={who.named} put={(named) => put({ named })} none="choose…" />
        )}
        <Wrong text={wrong} />
        <Button type="submit" variant="contained" disabled={!who.named.trim()} sx={{ justifySelf: "start" }}>
          Add
        </Button>
      </Box>
      {link && <HandOn link={link} close={() => setLink(null)} />}
    </>
  );
}
