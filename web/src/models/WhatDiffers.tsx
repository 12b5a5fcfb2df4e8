import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import NativeSelect from "@mui/material/NativeSelect";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { ModelCard } from "../api/client";
import { changesQuery, issuesQuery, useModels } from "../api/queries";
import { useCompared } from "../open/compared";
import { spokenMoment } from "../open/dates";
import { useOpen } from "../open/useStage";
import { retint } from "../open/visibility/tints";
import { DeskActs, DeskNote } from "../parts/desk";
import { tone } from "../style/theme";
import { DifferenceRow } from "./DifferenceRow";
import { type Changes, KINDS, type Kind, summed, tintedChanges } from "./differences";
import { useLookAtGone } from "./useLookAtGone";

/** With what a model can be compared: its earlier issues, and the other alternatives for the same thing. */
function useOthers(model: ModelCard) {
  const { projectId } = useOpen();
  const { data: issues = [] } = useQuery(issuesQuery(projectId, model.id));
  const { data: models = [] } = useModels(projectId);
  const rivals = models.filter(
    (other) =>
      other.id !== model.id && other.alternative_what && other.alternative_what === model.alternative_what,
  );
  return [
    ...issues.map((issue) => ({
      key: `issue:${issue.id}`,
      name: `issue of ${spokenMoment(issue.added_at)}, ${issue.added_by || "nobody"}`,
    })),
    ...rivals.map((other) => ({ key: `other:${other.id}`, name: `alternative ${other.alternative_option}` })),
  ];
}

/** What differs in a model from an earlier issue of it, or from another alternative; nothing where there is none. */
export function WhatDiffers({ model }: { model: ModelCard }) {
  const others = useOthers(model);
  const chosen = useCompared((s) => s.against[model.id]) ?? "";
  const compare = useCompared((s) => s.compare);
  if (!others.length) return null;
  const against = others.some(({ key }) => key === chosen) ? chosen : "";
  return (
    <Box sx={{ mt: 0.5 }}>
      <NativeSelect
        value={against}
        onChange={(event) => compare(model.id, event.target.value)}
        inputProps={{ "aria-label": `Compare ${model.name} with` }}
        sx={{ fontSize: 13, maxWidth: "100%" }}
      >
        <option value="">Compare with…</option>
        {others.map(({ key, name }) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </NativeSelect>
      {against && (
        <Differences
          key={against}
          model={model}
          against={against}
          called={others.find(({ key }) => key === against)?.name ?? ""}
        />
      )}
    </Box>
  );
}

function Differences(props: { model: ModelCard; against: string; called: string }) {
  const { model, against, called } = props;
  const { from, show } = useCompared();
  const { projectId, federation } = useOpen();
  const { data, error } = useQuery(changesQuery(projectId, model.id, against, federation.version));
  const gone = { model: model.id, against, called };
  const lookAtGone = useLookAtGone(gone);
  const drawn = from?.model === model.id && from.against === against;
  if (error) return <DeskNote>{error.message}</DeskNote>;
  if (!data) return <DeskNote>Comparing…</DeskNote>;
  const tint = () =>
    retint(`tinted what differs in ${model.name}`, (rules, by, at) =>
      tintedChanges(rules, model.name, data, by, at),
    );
  return (
    <Box data-testid="differences" sx={{ mt: 0.5 }}>
      <DeskNote>
        {summed(data)}
        {data.matched_by === "place" &&
          " The file has new GlobalIds. Components were matched by tag, type and place; saved items with old GlobalIds do not find them."}
      </DeskNote>
      <DeskActs>
        <Button variant="text" onClick={tint}>
          Tint differences
        </Button>
        {(data.removed.length > 0 || data.moved.length > 0 || data.reshaped.length > 0) && (
          <Button variant="text" aria-pressed={drawn} onClick={() => show(drawn ? null : gone)}>
            {drawn ? "Hide removed components" : "Show removed components"}
          </Button>
        )}
      </DeskActs>
      {KINDS.map(({ kind, name, colour }) => (
        <KindRows key={kind} kind={kind} name={name} colour={colour} changes={data} lookAtGone={lookAtGone} />
      ))}
    </Box>
  );
}

const FIRST_ROWS = 12;

function KindRows(props: {
  kind: Kind;
  name: string;
  colour: string;
  changes: Changes;
  lookAtGone: (globalId: string) => void;
}) {
  const { kind, name, colour, changes, lookAtGone } = props;
  const [all, showAll] = useState(false);
  const rows = changes[kind];
  if (!rows.length) return null;
  return (
    <Box sx={{ mt: 0.75 }}>
      <Box sx={{ display: "flex", gap: 0.75, alignItems: "center", fontWeight: 600, fontSize: 13 }}>
        <Box
          component="span"
          sx={{ width: 12, height: 12, bgcolor: colour, border: `1px solid ${tone.soft}` }}
        />
        {rows.length} {name}
      </Box>
      {(all ? rows : rows.slice(0, FIRST_ROWS)).map((row) => (
        <DifferenceRow key={row.ref.global_id} row={row} kind={kind} lookAtGone={lookAtGone} />
      ))}
      {!all && rows.length > FIRST_ROWS && (
        <Button variant="text" onClick={() => showAll(true)}>
          All {rows.length}
        </Button>
      )}
    </Box>
  );
}
