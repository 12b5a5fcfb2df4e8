import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { type FormEvent, useState } from "react";
import type { Shapes } from "../api/client";
import { useAttempt } from "../parts/attempt";
import { Tick } from "../parts/Tick";
import { DisciplineField } from "./DisciplineField";
import { SignInField } from "./SignInField";
import { Sure } from "./Sure";
import { useInviting } from "./usePeople";
import { Wrong } from "./Wrong";

/** What is said of somebody, and what they may on this server. */
export function PersonForm({ each, done }: { each: Shapes["ListedPerson"]; done: () => void }) {
  const { change, forgetCodes, remove } = useInviting();
  const [sure, setSure] = useState(false);
  const { wrong, attempt } = useAttempt();
  const { name, firm, discipline, owner, makes_projects } = each.person;
  const [wish, setWish] = useState<Shapes["PersonWish"]>({ name, firm, discipline, owner, makes_projects });
  const put = (part: Partial<typeof wish>) => setWish({ ...wish, ...part });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    attempt(async () => {
      await change.mutateAsync({ id: each.id, body: wish });
      done();
    });
  };
  return (
    <Box component="form" onSubmit={submit} sx={{ display: "grid", gap: 1, maxWidth: 380, mt: 1 }}>
      <SignInField label="Name" value={wish.name} put={(text) => put({ name: text })} fills="off" first />
      <SignInField
        label="Firm"
        value={wish.firm}
        put={(text) => put({ firm: text })}
        fills="off"
        hint="Projects can let in all of a firm."
      />
      <DisciplineField value={wish.discipline} put={(code) => put({ discipline: code })} none="none" />
      <Tick label="makes projects" on={wish.makes_projects} set={(on) => put({ makes_projects: on })} />
      <Tick label="owns this server, and invites others" on={wish.owner} set={(on) => put({ owner: on })} />
      <Wrong text={wrong} />
      <Box>
        <Button type="submit" variant="contained" disabled={!wish.name.trim()}>
          Save
        </Button>{" "}
        <Button variant="text" onClick={done}>
          Cancel
        </Button>
      </Box>
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", alignItems: "baseline" }}>
        {each.second_factor && (
          <Button variant="text" onClick={() => attempt(() => forgetCodes.mutateAsync(each.id))}>
            Remove second factor
          </Button>
        )}
        {!sure && (
          <Button variant="text" onClick={() => setSure(true)}>
            Remove {name}
          </Button>
        )}
      </Box>
      {sure && (
        <Sure
          says={`${name} will not sign in any more. What they made stays, and says that a former member made it. This cannot be undone.`}
          yes="Remove for good"
          act={() => attempt(() => remove.mutateAsync(each.id))}
          leave={() => setSure(false)}
        />
      )}
    </Box>
  );
}
