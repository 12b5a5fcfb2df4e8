import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { ROLES } from "../api/constants";
import { useFollow, useMine, useProjects } from "../api/queries";
import { useAttempt } from "../parts/attempt";
import { tone } from "../style/theme";
import { AddMember } from "./AddMember";
import { Frame } from "./Frame";
import { GuestLinks } from "./GuestLinks";
import { MemberRow } from "./MemberRow";
import { NamesOfFiles } from "./NamesOfFiles";
import { Sure } from "./Sure";
import { useMemberActs, useMembers } from "./useMembers";
import { Wrong } from "./Wrong";

/** Who is in a project; for those who own it. */
export function MembersPage() {
  const { projectId = "" } = useParams();
  const project = useProjects().data?.find(({ id }) => id === projectId);
  const { data: mine, error } = useMine(projectId);
  const owns = mine?.may.includes("see and change who is in the project");
  return (
    <Frame title={project ? `Who is in ${project.name}` : "Who is in the project"}>
      <Box sx={{ mb: 2, "& a": { color: tone.soft } }}>
        <Link to={`/p/${projectId}`}>Open the project</Link>
        {mine?.may.includes("see the record of the project") && (
          <>
            {" · "}
            <Link to={`/p/${projectId}/record`}>What was done in it</Link>
          </>
        )}
      </Box>
      <Wrong text={error?.message} />
      {mine && !owns && <Box>You may {mine.said} in this project. Those who own it say who is in it.</Box>}
      {owns && <Members projectId={projectId} />}
      {mine && !mine.guest && <Leave projectId={projectId} />}
    </Frame>
  );
}

function Leave({ projectId }: { projectId: string }) {
  const { leave } = useMemberActs(projectId);
  const { wrong, attempt } = useAttempt();
  const [sure, setSure] = useState(false);
  const go = useNavigate();
  return (
    <Box sx={{ mt: 4 }}>
      {sure ? (
        <Sure
          says="You will not see this project any more, until somebody who owns it adds you."
          yes="Leave it"
          act={() => {
            setSure(false);
            attempt(async () => {
              await leave.mutateAsync();
              await go("/");
            });
          }}
          leave={() => setSure(false)}
        />
      ) : (
        <Button variant="text" sx={{ ml: 0 }} onClick={() => setSure(true)}>
          Leave the project
        </Button>
      )}
      <Wrong text={wrong} />
    </Box>
  );
}

function Members({ projectId }: { projectId: string }) {
  const { data, error } = useMembers(projectId);
  useFollow(projectId);
  return (
    <>
      <Box
        component="dl"
        sx={{ fontSize: 13, color: tone.soft, m: 0, mb: 2, "& dd": { display: "inline", m: 0 } }}
      >
        {ROLES.map(({ role, name, says }) => (
          <Box key={role}>
            <Box component="dt" sx={{ display: "inline", fontWeight: 600 }}>
              {name}:
            </Box>{" "}
            <dd>{says}</dd>
          </Box>
        ))}
      </Box>
      <Wrong text={error?.message} />
      <Box component="ul" sx={{ listStyle: "none", p: 0, mt: 0, mb: 3, maxWidth: 760 }}>
        {data?.map((member) => (
          <MemberRow key={member.id} projectId={projectId} member={member} />
        ))}
      </Box>
      <AddMember projectId={projectId} />
      <NamesOfFiles projectId={projectId} />
      <GuestLinks projectId={projectId} />
    </>
  );
}
