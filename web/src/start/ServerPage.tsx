import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import { Link } from "react-router";
import type { Shapes } from "../api/client";
import { grouped } from "../api/locale";
import { bytesSaid } from "../open/bytes";
import { spokenDay, spokenMoment } from "../open/dates";
import { counted } from "../parts/words";
import { tone } from "../style/theme";
import { Frame } from "./Frame";
import { Programs } from "./Programs";
import { ServerProject } from "./ServerProject";
import { useServer, useServerProjects } from "./useServer";
import { Wrong } from "./Wrong";

const JOBS: readonly [string, string][] = [
  ["todo", "waiting"],
  ["doing", "running"],
  ["failed", "ended by an error"],
];

const DAY_MS = 86_400_000;
const SOON_DAYS = 14;
const NO_BACKUP = 'None yet. Run "stairpath backup" each night; docs/running.md says how.';

/** How the server is and what its projects take, for those who run it. */
export function ServerPage() {
  const { data, error } = useServer();
  const projects = useServerProjects();
  return (
    <Frame title="Server">
      <Box sx={{ color: tone.soft, mb: 2, "& a": { color: tone.soft } }}>
        <Link to="/people">People</Link>, <Link to="/record">record of the server</Link>
      </Box>
      <Wrong text={error?.message || projects.error?.message} />
      {data && <State state={data} />}
      {data && <Failures failures={data.failures} />}
      {projects.data && (
        <>
          <Heading>{counted(projects.data.length, "project")}</Heading>
          <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
            {projects.data.map((each) => (
              <ServerProject key={each.id} project={each} />
            ))}
          </Box>
        </>
      )}
      {data && <Programs />}
    </Frame>
  );
}

function Heading({ children }: { children: ReactNode }) {
  return (
    <Box component="h2" sx={{ fontSize: 18, fontWeight: 600, m: 0, mt: 4, mb: 1 }}>
      {children}
    </Box>
  );
}

interface Row {
  name: string;
  said: string;
  /** Whether somebody has to do something. */
  wrong: boolean;
}

const row = (name: string, said: string, wrong = false): Row => ({ name, said, wrong });

/** Until when the certificate is good; red from two weeks before. */
function certificate(until: string): Row {
  const days = Math.floor((Date.parse(until) - Date.now()) / DAY_MS);
  return days < 0
    ? row(
        "Certificate",
        `It ended on ${spokenDay(until)}: browsers refuse this page. Renew it in the proxy.`,
        true,
      )
    : row("Certificate", `good until ${spokenDay(until)}, for ${counted(days, "day")}`, days < SOON_DAYS);
}

function State({ state }: { state: Shapes["ServerState"] }) {
  const { backup, jobs, versions } = state;
  const most = state.kept_most_bytes ? ` of at most ${bytesSaid(state.kept_most_bytes)}` : "";
  const rows: Row[] = [
    row("People", `${grouped(state.people)}, signed in at ${counted(state.sign_ins, "browser")}`),
    row(
      "Storage",
      `${bytesSaid(state.kept_bytes)}${most} in files; the database takes ${bytesSaid(state.database_bytes)}; ${bytesSaid(state.free_bytes)} free on this machine`,
    ),
    row("Jobs", JOBS.map(([status, said]) => `${grouped(jobs[status] ?? 0)} ${said}`).join(", ")),
    row("Last backup", backup ? `${spokenMoment(backup.at)}, to ${backup.to}` : NO_BACKUP, !backup),
    ...(state.certificate_until ? [certificate(state.certificate_until)] : []),
    ...(state.clock_back_s
      ? [
          row(
            "Clock",
            `It was set back by ${counted(Math.round(state.clock_back_s / 60), "minute")}. Sign-ins and links last longer by as much, and codes of the second factor may not fit: set it right.`,
            true,
          ),
        ]
      : []),
    row(
      "Versions",
      Object.entries(versions)
        .map(([name, version]) => `${name} ${version}`)
        .join(", "),
    ),
  ];
  return (
    <Box
      component="dl"
      data-testid="server-state"
      sx={{
        display: "grid",
        gridTemplateColumns: "110px minmax(0, 1fr)",
        gap: 0.75,
        m: 0,
        fontSize: 14,
        overflowWrap: "anywhere",
        "& dd": { m: 0 },
        "& dt": { color: tone.soft },
      }}
    >
      {rows.map(({ name, said, wrong }) => (
        <Box key={name} sx={{ display: "contents" }}>
          <dt>{name}</dt>
          <Box component="dd" sx={{ color: wrong ? tone.wrong : tone.ink }}>
            {said}
          </Box>
        </Box>
      ))}
    </Box>
  );
}

function Failures({ failures }: { failures: Shapes["ServerState"]["failures"] }) {
  return (
    <>
      <Heading>What failed</Heading>
      {failures.length === 0 && <Box sx={{ color: tone.soft, fontSize: 14 }}>Nothing.</Box>}
      {failures.map((each) => (
        <Box
          key={`${each.project_id} ${each.what} ${each.name} ${each.at}`}
          data-testid="failure"
          sx={{ borderTop: `1px solid ${tone.line}`, py: 0.75, fontSize: 14, overflowWrap: "anywhere" }}
        >
          <Box>
            <b>{each.name}</b>, {each.what} of {each.project}, {spokenMoment(each.at)}
          </Box>
          <Box sx={{ color: tone.wrong, fontSize: 13 }}>{each.why}</Box>
        </Box>
      ))}
    </>
  );
}
