import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import NativeSelect from "@mui/material/NativeSelect";
import { useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import { Refused, type Shapes } from "../api/client";
import { spokenMoment } from "../open/dates";
import { FIELD } from "../parts/field";
import { tone } from "../style/theme";
import { Frame } from "./Frame";
import { KINDS, OF_PROJECT, OF_SERVER, spokenBrowser, spokenDeed, spokenValue } from "./recordWords";
import { type RecordFilter, recordFile, useRecord } from "./useRecord";
import { Wrong } from "./Wrong";

/** What was done in a project, or on the server: by whom, when, from where, and from what to what. */
export function RecordPage() {
  const { projectId = null } = useParams();
  const [query] = useSearchParams();
  const [filter, setFilter] = useState<RecordFilter>({
    who: "",
    kind: "",
    thing: query.get("thing") ?? "",
    from: "",
    to: "",
  });
  const { data, error, hasNextPage, fetchNextPage, isFetching } = useRecord(projectId, filter);
  const entries = data?.pages.flatMap((page) => page.entries) ?? [];
  return (
    <Frame title={projectId ? "Record of the project" : "Record of the server"}>
      <Box sx={{ mb: 2, "& a": { color: tone.soft } }}>
        {projectId ? <Link to={`/p/${projectId}`}>Open the project</Link> : <Link to="/people">People</Link>}
      </Box>
      {/* Who may not see it has nothing to choose from. */}
      {(data || !(error instanceof Refused) || filtered(filter)) && (
        <Filter projectId={projectId} filter={filter} set={setFilter} people={data?.pages[0]?.people ?? []} />
      )}
      <Wrong text={error?.message} />
      {data && entries.length === 0 && <Box>Nothing was done that fits.</Box>}
      <Box component="ul" sx={{ listStyle: "none", p: 0 }}>
        {entries.map((entry) => (
          <Entry key={entry.number} entry={entry} />
        ))}
      </Box>
      {hasNextPage && (
        <Button variant="text" disabled={isFetching} onClick={() => void fetchNextPage()}>
          Earlier ones
        </Button>
      )}
    </Frame>
  );
}

const filtered = ({ who, kind, from, to }: RecordFilter) => [who, kind, from, to].some(Boolean);

function Filter(props: {
  projectId: string | null;
  filter: RecordFilter;
  set: (filter: RecordFilter) => void;
  people: readonly string[];
}) {
  const { projectId, filter, set, people } = props;
  const put = (part: Partial<RecordFilter>) => set({ ...filter, ...part });
  const kinds = projectId ? OF_PROJECT : OF_SERVER;
  const day = (label: string, value: string, change: (day: string) => void) => (
    <Box component="label" sx={{ fontSize: 13, color: tone.soft }}>
      {label}
      <Box
        component="input"
        type="date"
        value={value}
        onChange={(event: React.ChangeEvent<HTMLInputElement>) => change(event.target.value)}
        sx={{ ...FIELD, width: 140, display: "block" }}
      />
    </Box>
  );
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", gap: 2, alignItems: "end", mb: 1 }}>
      <NativeSelect
        value={filter.who}
        inputProps={{ "aria-label": "Who did it" }}
        onChange={(event) => put({ who: event.target.value })}
      >
        <option value="">Everybody</option>
        {people.map((name) => (
          <option key={name}>{name}</option>
        ))}
      </NativeSelect>
      <NativeSelect
        value={filter.kind}
        inputProps={{ "aria-label": "What it was done to" }}
        onChange={(event) => put({ kind: event.target.value })}
      >
        <option value="">Everything</option>
        {kinds.map((kind) => (
          <option key={kind} value={kind}>
            {KINDS[kind]}
          </option>
        ))}
      </NativeSelect>
      {day("From", filter.from, (from) => put({ from }))}
      {day("To", filter.to, (to) => put({ to }))}
      {filter.thing && (
        <Button variant="text" onClick={() => put({ thing: "" })}>
          Not only of one thing
        </Button>
      )}
      <Box sx={{ fontSize: 13.5, color: tone.soft, "& a": { color: tone.ink } }}>
        Save as{" "}
        <a href={recordFile(projectId, "csv", filter)} download>
          CSV
        </a>{" "}
        or{" "}
        <a href={recordFile(projectId, "jsonl", filter)} download>
          JSON lines
        </a>
      </Box>
    </Box>
  );
}

function Entry({ entry }: { entry: Shapes["RecordEntry"] }) {
  const from = [entry.address, entry.token && `token ${entry.token}`, spokenBrowser(entry.browser)]
    .filter(Boolean)
    .join(", ");
  return (
    <Box
      component="li"
      data-testid="entry"
      sx={{
        borderTop: `1px solid ${tone.line}`,
        py: 0.75,
        display: "grid",
        gridTemplateColumns: { xs: "1fr", sm: "130px minmax(0, 1fr)" },
        columnGap: 2,
        fontSize: 14,
        overflowWrap: "anywhere",
      }}
    >
      <Box sx={{ color: tone.soft, fontSize: 13 }}>{spokenMoment(entry.at)}</Box>
      <Box>
        <b>{entry.who}</b> {spokenDeed(entry)}
        {entry.fields.map((field) => (
          <Box key={field.name} sx={{ color: tone.soft, fontSize: 13 }}>
            {field.name}
            {(field.old || field.new) && `: ${spokenValue(field.old)} → ${spokenValue(field.new)}`}
          </Box>
        ))}
        {from && (
          <Box
            sx={{
              color: tone.soft,
              fontSize: 12,
              overflow: "hidden",
              textOverflow: "ellipsis",
              whiteSpace: "nowrap",
            }}
            title={entry.browser}
          >
            {from}
          </Box>
        )}
      </Box>
    </Box>
  );
}
