import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import NativeSelect from "@mui/material/NativeSelect";
import { type Attempt, useAttempt } from "../parts/attempt";
import { tone } from "../style/theme";
import { useNameActs, useNames } from "./useMembers";
import { Wrong } from "./Wrong";

/** Names that came with files of topics: who of the project is meant is said once, and remembered. */
export function NamesOfFiles({ projectId }: { projectId: string }) {
  const { data } = useNames(projectId);
  const { match, forget } = useNameActs(projectId);
  const { wrong, attempt } = useAttempt();
  if (!data || data.unknown.length + data.matched.length === 0) return null;
  return (
    <Box component="section" sx={{ mt: 4, maxWidth: 640 }}>
      <Box component="h2" sx={{ fontSize: 18, fontWeight: 600, m: 0 }}>
        Names from files
      </Box>
      <Box sx={{ color: tone.soft, fontSize: 13.5, my: 0.5 }}>
        Nobody in this project is called so. Say who is meant: the name is replaced here, and in files that
        come in later.
      </Box>
      <Wrong text={wrong} />
      <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
        {data.unknown.map((name) => (
          <Unknown
            key={name}
            name={name}
            people={data.people}
            meant={(person_id) => attempt(() => match.mutateAsync({ name, person_id }))}
          />
        ))}
        {data.matched.map((each) => (
          <Matched
            key={each.name}
            each={each}
            attempt={attempt}
            forget={() => forget.mutateAsync(each.name)}
          />
        ))}
      </Box>
    </Box>
  );
}

const ROW = {
  display: "flex",
  gap: 2,
  alignItems: "baseline",
  borderTop: `1px solid ${tone.line}`,
  py: 0.75,
};

function Unknown(props: {
  name: string;
  people: readonly { id: string; name: string }[];
  meant: (person_id: string) => void;
}) {
  const { name, people, meant } = props;
  return (
    <Box component="li" data-testid="unknown-name" sx={ROW}>
      <Box sx={{ flex: 1, overflowWrap: "anywhere" }}>{name}</Box>
      <NativeSelect
        value=""
        inputProps={{ "aria-label": `Who ${name} is` }}
        onChange={(event) => event.target.value && meant(event.target.value)}
      >
        <option value="">is…</option>
        {people.map((each) => (
          <option key={each.id} value={each.id}>
            {each.name}
          </option>
        ))}
      </NativeSelect>
    </Box>
  );
}

function Matched(props: {
  each: { name: string; is_: string };
  attempt: Attempt;
  forget: () => Promise<unknown>;
}) {
  const { each, attempt, forget } = props;
  return (
    <Box component="li" data-testid="matched-name" sx={ROW}>
      <Box sx={{ flex: 1, overflowWrap: "anywhere", color: tone.soft }}>
        {each.name} is {each.is_}
      </Box>
      <Button variant="text" aria-label={`Forget who ${each.name} is`} onClick={() => attempt(forget)}>
        Forget
      </Button>
    </Box>
  );
}
