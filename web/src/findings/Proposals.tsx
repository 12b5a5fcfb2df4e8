import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery } from "@tanstack/react-query";
import { answerOf, api, type Shapes } from "../api/client";
import { keys } from "../api/queries";
import { openOnDesk } from "../open/topics/topicsState";
import { useStatuses, useTopicActs } from "../open/topics/useTopics";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { DeskActs } from "../parts/desk";
import { Only } from "../parts/Only";
import { tone } from "../style/theme";
import { spokenMeasured } from "./finding";
import type { Check } from "./useLookAt";

type Proposal = Shapes["Proposal"];

/** What the last run of a check tells of the topics that were made of its findings; a person decides. */
export function Proposals({ check, made }: { check: Check; made: number }) {
  const { projectId } = useOpen();
  const { data = [] } = useQuery({
    queryKey: [...keys.topics(projectId), "proposals", check.id, made],
    enabled: made > 0,
    queryFn: () =>
      answerOf(api.GET("/api/tasks/{task_id}/proposals", { params: { path: { task_id: check.id } } })),
  });
  return (
    <>
      {data.map((proposal) => (
        <Row key={proposal.topic} proposal={proposal} check={check} />
      ))}
    </>
  );
}

function Row({ proposal, check }: { proposal: Proposal; check: Check }) {
  const { what, was, now } = proposal;
  const { change, write } = useTopicActs();
  const statuses = useStatuses();
  const units = useUnits();
  const before = `was ${spokenMeasured(was, units)}`;
  const says = now ? `${before}, is ${spokenMeasured(now, units)}` : `${before}, no longer found`;
  const end = statuses.find(({ end }) => end)?.name ?? "";
  const first = statuses.find(({ end }) => !end)?.name ?? "";
  const settle = async (status: string) => {
    if (await change(proposal.topic, { status }))
      await write(proposal.topic, `${check.name}: ${says}.`, null);
  };
  return (
    <Box
      data-testid="proposal"
      sx={{ borderLeft: `3px solid ${tone.here}`, pl: 0.75, my: 0.5, fontSize: 13, overflowWrap: "anywhere" }}
    >
      <b>{proposal.reference}</b> {proposal.title}
      <Box sx={{ color: tone.soft }}>
        {says} ({proposal.status})
      </Box>
      <DeskActs>
        <Only to="change this topic">
          {what === "gone" && (
            <Button variant="text" onClick={() => void settle(end)}>
              {end}
            </Button>
          )}
          {what === "back" && (
            <Button variant="text" onClick={() => void settle(first)}>
              {first} again
            </Button>
          )}
        </Only>
        <Button variant="text" onClick={() => openOnDesk(proposal.topic)}>
          Open it
        </Button>
      </DeskActs>
    </Box>
  );
}
