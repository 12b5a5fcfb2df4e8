import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import NativeSelect from "@mui/material/NativeSelect";
import { useState } from "react";
import { useDraft } from "../open/drafts";
import { useSession } from "../open/session";
import { useTopicActs, useTopicRules } from "../open/topics/useTopics";
import { DeskActs, DeskNote } from "../parts/desk";
import { FIELD } from "../parts/field";
import { Tick } from "../parts/Tick";
import { tone } from "../style/theme";
import { type Draft, draftOf, wishOf } from "./ruleDraft";
import { StatusRow } from "./StatusRow";

const LABEL = { fontSize: 12, color: tone.soft, display: "block", my: 0.75 } as const;
const JOINED = ["-", "/", "+"] as const;

/** How the project's topics are called, their statuses, and what is offered; kept for everybody at once or not at all. */
export function RulesForm() {
  const { data } = useTopicRules();
  const { setRules } = useTopicActs();
  const [draft, setDraft] = useDraft<Draft | null>("rules of topics", null);
  // What the rules were when somebody began to change them.
  const [from, setFrom] = useDraft("rules of topics that are changed", data);
  const [added, setAdded] = useState(0);
  if (!data) return null;
  if (!draft)
    return (
      <Button
        variant="text"
        sx={{ alignSelf: "start", ml: 0 }}
        onClick={() => {
          setFrom(data);
          setDraft(draftOf(data));
        }}
        aria-expanded={false}
      >
        Rules of this project
      </Button>
    );
  const put = (part: Partial<Draft>) => setDraft({ ...draft, ...part });
  const { reference, statuses } = draft;
  const rule = (part: Partial<Draft["reference"]>) => put({ reference: { ...reference, ...part } });
  const keep = async () => {
    if (data !== from) {
      useSession.getState().say("Someone else changed these rules. Review them before saving.");
      setFrom(data);
      setDraft(draftOf(data));
      return;
    }
    if (await setRules(wishOf(draft))) setDraft(null);
  };
  return (
    <Box data-testid="topic-rules" sx={{ borderTop: `1px solid ${tone.line}`, mt: 1, pt: 1 }}>
      <b>References</b>
      <Box
        sx={{
          "& select": { fontSize: 13 },
          display: "flex",
          gap: 1.5,
          flexWrap: "wrap",
          alignItems: "center",
        }}
      >
        <Tick
          label="Disciplines lead the reference"
          on={reference.disciplines}
          set={(disciplines) => rule({ disciplines })}
        />
        {reference.disciplines && (
          <>
            <NativeSelect
              value={reference.most_disciplines}
              inputProps={{ "aria-label": "Most disciplines in a reference" }}
              onChange={(event) => rule({ most_disciplines: Number(event.target.value) })}
            >
              {[1, 2, 3, 4].map((most) => (
                <option key={most} value={most}>
                  {most === 1 ? "one" : `up to ${most}`}
                </option>
              ))}
            </NativeSelect>
            <NativeSelect
              value={reference.joined_by}
              inputProps={{ "aria-label": "Separator between disciplines" }}
              onChange={(event) => rule({ joined_by: event.target.value })}
            >
              {JOINED.map((each) => (
                <option key={each} value={each}>{`AIR${each}STR`}</option>
              ))}
            </NativeSelect>
          </>
        )}
        <NativeSelect
          value={reference.digits}
          inputProps={{ "aria-label": "Digits of a reference" }}
          onChange={(event) => rule({ digits: Number(event.target.value) })}
        >
          {[1, 2, 3, 4, 5, 6].map((digits) => (
            <option key={digits} value={digits}>
              {"14".padStart(digits, "0")}
            </option>
          ))}
        </NativeSelect>
      </Box>
      <Box sx={{ mt: 1.5 }}>
        <b>Statuses</b>
        <DeskNote>
          New topics get the first status that is not final. Nothing is due after a final status.
        </DeskNote>
      </Box>
      {statuses.map((status) => (
        <StatusRow
          key={status.key}
          status={status}
          others={statuses.filter(({ key }) => key !== status.key)}
          put={(part) =>
            put({ statuses: statuses.map((each) => (each.key === status.key ? { ...each, ...part } : each)) })
          }
          remove={() => put({ statuses: statuses.filter(({ key }) => key !== status.key) })}
        />
      ))}
      <Button
        variant="text"
        onClick={() => {
          put({ statuses: [...statuses, { key: `\n${added}`, name: "", next: [], end: false, was: "" }] });
          setAdded(added + 1);
        }}
      >
        Add a status
      </Button>
      {(["kinds", "priorities"] as const).map((what) => (
        <Box component="label" key={what} sx={LABEL}>
          {what === "kinds" ? "Types, separated by commas" : "Priorities, highest first, separated by commas"}
          <Box
            component="input"
            value={draft[what]}
            onChange={(event: React.ChangeEvent<HTMLInputElement>) => put({ [what]: event.target.value })}
            sx={FIELD}
          />
        </Box>
      ))}
      <DeskActs>
        <Button variant="text" onClick={() => void keep()}>
          Save rules
        </Button>
        <Button variant="text" onClick={() => setDraft(null)}>
          Cancel
        </Button>
      </DeskActs>
    </Box>
  );
}
