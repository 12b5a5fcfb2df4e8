import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import type { Component } from "../api/client";
import { neighboursQuery } from "../api/queries";
import { find, numberingOf, numberOf, theseOf } from "../open/numbering";
import { useSelection } from "../open/selection";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { DeskHeading, DeskNote } from "../parts/desk";
import { LengthInput } from "../parts/LengthInput";
import { face, tone } from "../style/theme";
import { useAroundAsked } from "./around";

const FIRST_M = 0.3;
const MOST_M = 20;

/** What stands within a distance of a component, nearest first; a click picks it, the cursor marks it. */
export function Around({ component: c }: { component: Component }) {
  const [asked, ask] = useState(false);
  const wanted = useAroundAsked((s) => s.asked);
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!wanted) return;
    useAroundAsked.setState({ asked: false });
    ask(true);
    list.current?.scrollIntoView({ block: "start" });
  }, [wanted]);
  const [withinM, setWithin] = useState(FIRST_M);
  const { federation } = useOpen();
  const { data, error, isFetching } = useQuery({
    ...neighboursQuery(c.model_id, c.global_id, withinM, federation.version),
    enabled: asked,
  });
  const pick = useSelection((s) => s.pick);
  const numbers = numberingOf(federation).numbersOf(theseOf(data?.found ?? []));
  return (
    <>
      <div ref={list}>
        <DeskHeading>Around it</DeskHeading>
      </div>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1, fontSize: 13 }}>
        within
        <LengthInput
          label="Within"
          value={withinM}
          keep={(metres) => {
            if (metres !== null) setWithin(metres);
            ask(true);
          }}
          least={0}
          most={MOST_M}
        />
        <Button variant="text" onClick={() => ask(true)}>
          Look
        </Button>
      </Box>
      {error && <DeskNote>{error.message}</DeskNote>}
      {asked && isFetching && <DeskNote>Measuring…</DeskNote>}
      {asked && !isFetching && data && (
        <Box data-testid="around">
          <DeskNote>
            {data.count === 0
              ? "Nothing is within this distance."
              : data.count > data.found.length
                ? `${data.count} within this distance, the nearest ${data.found.length}:`
                : `${data.count} within this distance:`}{" "}
            {data.count > 1 && (
              <Button variant="text" onClick={() => pick(numbers)}>
                Select them
              </Button>
            )}
          </DeskNote>
          {data.found.map((near) => (
            <NearRow key={`${near.model}/${near.global_id}`} {...near} />
          ))}
        </Box>
      )}
    </>
  );
}

function NearRow(props: { model: string; global_id: string; label: string; distance_m: number }) {
  const { federation, stage } = useOpen();
  const units = useUnits();
  const pick = useSelection((s) => s.pick);
  const number = numberOf(federation, props.model, props.global_id);
  const found = find(federation, number);
  const code = found && federation.disciplines[found.model.discipline[found.at] ?? 0]?.code;
  const mark = (component: number) => stage()?.building.mark(component);
  return (
    <Box
      component="button"
      type="button"
      data-testid="near"
      onClick={() => {
        mark(-1);
        if (number >= 0) pick([number]);
      }}
      onPointerEnter={() => mark(number)}
      onPointerLeave={() => mark(-1)}
      sx={{
        border: 0,
        borderBottom: `1px solid ${tone.line}`,
        bgcolor: "transparent",
        color: tone.ink,
        font: "inherit",
        fontSize: 13,
        width: "100%",
        px: 0,
        py: 0.3,
        display: "flex",
        gap: 1,
        textAlign: "left",
        cursor: "pointer",
        "&:hover": { bgcolor: tone.film },
      }}
    >
      <Box
        component="span"
        sx={{ flex: "0 0 34px", fontFamily: face.head, fontWeight: 600, color: tone.soft }}
      >
        {code}
      </Box>
      <Box component="span" sx={{ flex: 1, overflowWrap: "anywhere" }}>
        {props.label}
      </Box>
      <Box component="span" sx={{ fontFamily: face.figure, fontSize: 12.5 }}>
        {props.distance_m === 0 ? "touching" : units.length(props.distance_m)}
      </Box>
    </Box>
  );
}
