import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import NativeSelect from "@mui/material/NativeSelect";
import { useState } from "react";
import type { Shapes } from "../api/client";
import { ROLES } from "../api/constants";
import { spokenDay } from "../open/dates";
import { useAttempt } from "../parts/attempt";
import { tone } from "../style/theme";
import { roleOf } from "./roleOf";
import { Sure } from "./Sure";
import { useMemberActs } from "./useMembers";
import { Wrong } from "./Wrong";

const KINDS = { person: "", firm: "all of the firm", discipline: "all of the discipline" } as const;

/** A person, a firm or a discipline in a project, with the role and what is done with it. */
export function MemberRow(props: { projectId: string; member: Shapes["Member"] }) {
  const { projectId, member } = props;
  const { wrong, attempt } = useAttempt();
  const { change, remove, handOver } = useMemberActs(projectId);
  const [sure, setSure] = useState(false);
  const about = [
    KINDS[member.kind],
    member.key,
    member.firm,
    member.discipline,
    `added by ${member.added_by}, ${spokenDay(member.added_at)}`,
    member.begun ? "" : "has not set a password yet",
  ];
  return (
    <Box
      component="li"
      data-testid="member"
      sx={{ borderTop: `1px solid ${tone.line}`, py: 1, overflowWrap: "anywhere" }}
    >
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: { xs: "1fr 130px", sm: "minmax(0, 1fr) 130px 90px 64px" },
          gap: 1,
          alignItems: "baseline",
          "& button": { justifySelf: "end" },
        }}
      >
        <Box>
          <Box sx={{ fontWeight: 600 }}>
            {member.name}
            {member.you && " (you)"}
          </Box>
          <Box sx={{ color: tone.soft, fontSize: 13 }}>{about.filter(Boolean).join(", ")}</Box>
        </Box>
        <NativeSelect
          value={member.role}
          inputProps={{ "aria-label": `What ${member.name} may` }}
          onChange={(event) =>
            attempt(() => change.mutateAsync({ id: member.id, role: roleOf(event.target.value) }))
          }
        >
          {ROLES.map(({ role, name }) => (
            <option key={role} value={role}>
              {name}
            </option>
          ))}
        </NativeSelect>
        {member.kind === "person" && !member.you ? (
          <Button variant="text" aria-label={`Hand over to ${member.name}`} onClick={() => setSure(true)}>
            Hand over
          </Button>
        ) : (
          <span />
        )}
        <Button
          variant="text"
          aria-label={`Remove ${member.name}`}
          onClick={() => attempt(() => remove.mutateAsync(member.id))}
        >
          Remove
        </Button>
      </Box>
      <Wrong text={wrong} />
      {sure && (
        <Sure
          says={`${member.name} will own the project, and you will coordinate in it.`}
          yes="Hand it over"
          act={() => {
            setSure(false);
            attempt(() => handOver.mutateAsync(member.id));
          }}
          leave={() => setSure(false)}
        />
      )}
    </Box>
  );
}
