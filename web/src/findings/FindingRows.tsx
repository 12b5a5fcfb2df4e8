import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import type { Topic } from "../open/topics/listed";
import { openOnDesk } from "../open/topics/topicsState";
import { useUnits } from "../open/units";
import { DeskActs, DeskNote } from "../parts/desk";
import { Only } from "../parts/Only";
import { Tick } from "../parts/Tick";
import { counted } from "../parts/words";
import { face, tone } from "../style/theme";
import { type Finding, type Findings, partsOf, spokenWorst, topicsOf, useLooked } from "./finding";
import { ManyTopics } from "./ManyTopics";
import { type Check, useLookAt } from "./useLookAt";
import { useTopicsByPair } from "./useTopicsByPair";

const PAGE = 50;

/** The findings of a check, the deepest first. */
export function FindingRows({ findings, check }: { findings: Findings; check: Check }) {
  const [most, setMost] = useState(PAGE);
  const left = Object.entries(findings.left_out);
  const byPair = useTopicsByPair();
  return (
    <Box>
      <DeskNote>
        {counted(findings.checked, "pair")} looked at, {findings.anew} of them measured in the last run.
        {left.map(([why, count]) => ` ${count} excluded: ${why}.`)}
      </DeskNote>
      <Only to="write topics and comments">
        <ManyTopics findings={findings} check={check} byPair={byPair} />
      </Only>
      {findings.findings.slice(0, most).map((finding, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: findings are numbered by their place
        <Row key={at} made={topicsOf(findings, finding, byPair)} {...{ finding, at, findings, check }} />
      ))}
      {findings.findings.length > most && (
        <Button variant="text" onClick={() => setMost(most + PAGE)}>
          {findings.count - most} more
        </Button>
      )}
      {findings.count > findings.findings.length && most >= findings.findings.length && (
        <DeskNote>
          The deepest {findings.findings.length} of {findings.count} are listed. Narrow the check to see the
          rest.
        </DeskNote>
      )}
    </Box>
  );
}

function Row(props: {
  finding: Finding;
  at: number;
  findings: Findings;
  check: Check;
  made: readonly Pick<Topic, "id" | "reference">[];
}) {
  const { finding, at, findings, check, made } = props;
  const units = useUnits();
  const look = useLookAt(findings);
  const on = useLooked((s) => s.at === at);
  const ticked = useLooked((s) => s.ticked.includes(at));
  const turn = (tick: boolean) =>
    useLooked.setState((s) => ({
      ticked: tick ? [...s.ticked, at].sort((a, b) => a - b) : s.ticked.filter((k) => k !== at),
    }));
  const { worst } = finding;
  return (
    <Box
      data-testid="finding"
      sx={{
        borderTop: `1px solid ${tone.line}`,
        borderLeft: `3px solid ${on ? tone.pick : "transparent"}`,
        pl: 0.75,
        py: 0.5,
      }}
    >
      <Box
        component="button"
        type="button"
        aria-label={`Finding ${at + 1}: look at it`}
        onClick={() => void look.sight(finding, at)}
        sx={{
          border: 0,
          p: 0,
          width: "100%",
          bgcolor: "transparent",
          font: "inherit",
          color: tone.ink,
          textAlign: "left",
          cursor: "pointer",
        }}
      >
        <Box sx={{ display: "flex", justifyContent: "space-between", fontSize: 13 }}>
          <Box sx={{ fontWeight: 600 }}>
            {at + 1} · {worst.kind === "overlap" ? "overlap" : "too near"}
          </Box>
          <Box sx={{ fontFamily: face.figure, fontSize: 12.5 }}>{spokenWorst(finding, units)}</Box>
        </Box>
        {partsOf(findings, finding)
          .slice(0, 4)
          .map((part) => (
            <Box key={`${part.model} ${part.global_id}`} sx={{ fontSize: 12.5 }}>
              <Box component="span" sx={{ fontFamily: face.head, fontWeight: 600, color: tone.soft }}>
                {part.discipline}
              </Box>{" "}
              {part.label}
            </Box>
          ))}
        {finding.components.length > 4 && (
          <Box sx={{ fontSize: 12.5 }}>and {finding.components.length - 4} more</Box>
        )}
        {worst.volume_m3 !== null && worst.volume_m3 > 0 && (
          <Box sx={{ fontSize: 12, color: tone.soft }}>{units.volume(worst.volume_m3)} shared</Box>
        )}
      </Box>
      {made.length > 0 && (
        <DeskActs>
          {made.map(({ id, reference }) => (
            <Button key={id} variant="text" onClick={() => openOnDesk(id)}>
              Topic {reference}
            </Button>
          ))}
        </DeskActs>
      )}
      <DeskActs>
        <Tick label="tick" on={ticked} set={turn} />
        <Button variant="text" onClick={() => void look.sight(finding, at)}>
          Look at it
        </Button>
        <Button variant="text" onClick={() => void look.isolate(finding, at)}>
          Isolate
        </Button>
        <Only to="keep viewpoints">
          <Button variant="text" onClick={() => void look.keep(finding, at, check.name)}>
            Keep as a viewpoint
          </Button>
        </Only>
        <Only to="write topics and comments">
          <Button
            variant="text"
            onClick={async () => {
              const topic = await look.topic([at], check, (one) => spokenWorst(one, units));
              if (topic) openOnDesk(topic.id);
            }}
          >
            {made.length ? "Make another topic" : "Make a topic"}
          </Button>
        </Only>
        <Button variant="text" onClick={() => look.write(finding, spokenWorst(finding, units))}>
          Write on the view
        </Button>
      </DeskActs>
    </Box>
  );
}
