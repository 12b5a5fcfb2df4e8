import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import type { Component } from "../api/client";
import { useComponent } from "../api/queries";
import { find, numberOf } from "../open/numbering";
import { useSelection } from "../open/selection";
import { spoken } from "../open/selections/properties";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { DeskHeading, DeskNote } from "../parts/desk";
import { face, tone } from "../style/theme";
import { Acts, WhyHidden } from "./Acts";
import { Around } from "./Around";
import { Properties } from "./PropertyList";
import { InCommon, SideBySide } from "./Several";

/** So many of what one hosts or is joined to are named one by one. */
const MOST_LINKED = 8;

/** What the picked component is; of several what they have in common, and two side by side. */
export function ComponentDesk() {
  const { federation } = useOpen();
  const picked = useSelection((s) => s.picked);
  const last = picked.at(-1);
  const found = last === undefined ? null : find(federation, last);
  if (!found) {
    return (
      <DeskNote>
        <DeskHeading>Component</DeskHeading>
        Click a component on the stage to see what it is. Hold Shift to select several.
      </DeskNote>
    );
  }
  const two = picked.length === 2 ? picked.flatMap((each) => find(federation, each) ?? []) : [];
  return (
    <Box>
      {picked.length > 1 && <InCommon />}
      <Known key={found.globalId} modelId={found.model.id} globalId={found.globalId} of={picked.length}>
        {two.length === 2 && (
          <SideBySide
            key={two.map((each) => each.globalId).join()}
            ids={two.map((each) => [each.model.id, each.globalId] as const)}
          />
        )}
      </Known>
    </Box>
  );
}

/** The component that was picked last; with something else to say in place of what it is. */
function Known(props: { modelId: string; globalId: string; of: number; children: ReactNode }) {
  const { modelId, globalId, of, children } = props;
  const { data, error } = useComponent(modelId, globalId);
  if (error) return <DeskNote>{error.message}</DeskNote>;
  if (!data) return <DeskNote>Loading…</DeskNote>;
  return (
    <>
      {of > 1 ? <Acts component={data} /> : null}
      {of > 1 && children}
      {of > 2 && <DeskNote>Last selected:</DeskNote>}
      {of !== 2 && (
        <>
          <Title component={data} />
          <WhyHidden />
          {of === 1 && <Acts component={data} />}
          <Facts component={data} />
          <Around component={data} />
          <Properties component={data} />
        </>
      )}
    </>
  );
}

function Title({ component: c }: { component: Component }) {
  const { federation } = useOpen();
  const colour = federation.disciplines.find((d) => d.code === c.discipline)?.colour ?? tone.soft;
  return (
    <>
      <Box
        component="h2"
        data-testid="component-tag"
        sx={{
          m: 0,
          fontSize: 27,
          lineHeight: 1.1,
          fontWeight: 600,
          fontFamily: face.head,
          overflowWrap: "anywhere",
        }}
      >
        {c.tag || c.name || c.class_name}
      </Box>
      {c.tag && c.name && <Box sx={{ fontSize: 17, lineHeight: 1.25, mt: 0.5 }}>{c.name}</Box>}
      {c.description && (
        <Box sx={{ fontSize: 15, lineHeight: 1.3, mt: 0.25, color: tone.soft }}>{c.description}</Box>
      )}
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.6, my: 1.25 }}>
        <Chip ink={tone.ink} back="#fff" bar={colour}>
          {c.discipline}
        </Chip>
        <Chip ink="#fff" back={tone.ink}>
          {c.level ?? "No level"}
        </Chip>
        {c.room && (
          <Chip ink={tone.ink} back="#fff">
            {c.room}
          </Chip>
        )}
      </Box>
    </>
  );
}

/** `bar` is a colour that letters would not be read on. */
function Chip(props: { ink: string; back: string; bar?: string; children: ReactNode }) {
  const { ink, back, bar, children } = props;
  return (
    <Box
      component="span"
      sx={{
        color: ink,
        bgcolor: back,
        border: `1px solid ${back === "#fff" ? tone.line : back}`,
        ...(bar ? { borderLeft: `8px solid ${bar}` } : {}),
        px: 0.8,
        fontFamily: face.head,
        fontWeight: 600,
        fontSize: 12.5,
        lineHeight: "20px",
        borderRadius: "2px",
      }}
    >
      {children}
    </Box>
  );
}

function Facts({ component: c }: { component: Component }) {
  const units = useUnits();
  return (
    <Box
      component="dl"
      sx={{
        m: 0,
        display: "grid",
        gridTemplateColumns: "86px 1fr",
        columnGap: 1,
        rowGap: 0.5,
        fontSize: 13.5,
      }}
    >
      <Fact name="Class">
        {c.class_name}
        {c.predefined && c.predefined !== "NOTDEFINED" ? ` · ${spoken(c.predefined)}` : ""}
        <Box component="span" sx={{ ml: 0.75, fontSize: 11, color: tone.soft }}>
          {c.ifc_class}
        </Box>
      </Fact>
      <Fact name="Type">{c.type_name}</Fact>
      <Fact name="Model">{c.file_name}</Fact>
      <Fact name="Level">{c.level ?? "No level"}</Fact>
      <Fact name="Room">{c.room ?? "none"}</Fact>
      <Fact name="Where">
        <span data-testid="component-place">{units.within(c.place)}</span>
      </Fact>
      <Fact name="System">{c.systems.join(", ")}</Fact>
      <Fact name="Material">{c.material}</Fact>
      <Linked name="Part of" to={c.part_of ? [c.part_of] : []} />
      <Linked name="Its parts" to={c.parts} />
      <Linked name="Hosted in" to={c.hosted_in ? [c.hosted_in] : []} />
      <Linked name="Hosts" to={c.hosts} />
      <Linked name="Joined to" to={c.connected} />
    </Box>
  );
}

function Fact({ name, children }: { name: string; children: ReactNode }) {
  if (children === "" || children === null) return null;
  return (
    <>
      <Box component="dt" sx={{ color: tone.soft }}>
        {name}
      </Box>
      <Box component="dd" sx={{ m: 0, overflowWrap: "anywhere" }}>
        {children}
      </Box>
    </>
  );
}

/** Components that one has to do with; a click picks one of them, or all. */
function Linked({ name, to }: { name: string; to: Component["hosts"] }) {
  const { federation } = useOpen();
  const pick = useSelection((s) => s.pick);
  const there = to.flatMap(({ model, global_id }) => {
    const number = numberOf(federation, model, global_id);
    const found = find(federation, number);
    return found ? [{ number, label: found.model.labels[found.at] }] : [];
  });
  if (!there.length) return null;
  return (
    <Fact name={name}>
      {there.slice(0, MOST_LINKED).map(({ number, label }) => (
        <Button key={number} variant="text" onClick={() => pick([number])}>
          {label}
        </Button>
      ))}
      {there.length > 1 && (
        <Button variant="text" onClick={() => pick(there.map(({ number }) => number))}>
          All {there.length}
        </Button>
      )}
    </Fact>
  );
}
