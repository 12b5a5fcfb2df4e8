import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import type { Shapes } from "../api/client";
import { ATTRIBUTES } from "../api/constants";
import { stepName, stepped } from "../open/selections/groups";
import { QUANTITIES, useRegister } from "../open/selections/registerState";
import { PickOne } from "../parts/PickOne";
import { Switch } from "../parts/Switch";
import { askedName, useAskable } from "./useAskable";

const STEPS = ATTRIBUTES.filter(({ groups }) => groups).map(({ what }) => what);
const CALLED = ATTRIBUTES.filter(({ groups }) => !groups).map(({ what }) => what);
const WORKED: readonly string[] = QUANTITIES;
const MOST_STEPS = 3;
const MOST_COLUMNS = 8;
const WORDS = ["Grouped by", "then by", "then by"];
const GROUP = { fontSize: 13, display: "grid", gap: 0.5, alignItems: "center", mt: 1 } as const;

const named = (value: string) => ({ value, name: stepName(value) });
/** How the register is grouped, in up to three steps, what is summed, and what stands beside each component. */
export function Grouping() {
  const { data: askable = [] } = useAskable();
  return (
    <Box sx={{ ...GROUP, gridTemplateColumns: "auto minmax(0, 1fr)" }}>
      <Steps askable={askable} />
      <Sums askable={askable} />
      <Columns askable={askable} />
    </Box>
  );
}

type Asks = { askable: readonly Shapes["Askable"][] };

function Steps({ askable }: Asks) {
  const { steps, put } = useRegister();
  const properties = askable.filter(({ kind }) => kind === "property").map(askedName);
  const step = (at: number, value: string) => put({ steps: stepped(steps, at, value), open: [] });
  return [...steps, ...(steps.length < MOST_STEPS ? [""] : [])].map((value, at) => {
    const known = STEPS.some((each) => each === value) || properties.some((each) => each.value === value);
    return (
      <Line key={value || "another"} name={WORDS[at] ?? ""}>
        <PickOne
          label={`Step ${at + 1} of the grouping`}
          value={value}
          {...(at > 0 || !value ? { none: "none" } : {})}
          offered={[
            { of: [...STEPS.map(named), ...(known || !value ? [] : [named(value)])] },
            { label: "a property", of: properties },
          ]}
          choose={(next) => step(at, next)}
        />
      </Line>
    );
  });
}

function Sums({ askable }: Asks) {
  const { sums, put } = useRegister();
  const turn = (name: string) =>
    put({ sums: sums.includes(name) ? sums.filter((each) => each !== name) : [...sums, name] });
  const quantities = [...new Set(askable.filter(({ kind }) => kind === "quantity").map(({ name }) => name))]
    .filter((name) => !sums.includes(name) && !WORKED.includes(name.toLowerCase()))
    .sort();
  return (
    <Line name="Summed">
      <Words>
        {[...QUANTITIES, ...sums.filter((each) => !WORKED.includes(each))].map((name) => (
          <Switch key={name} name={name} on={sums.includes(name)} turn={() => turn(name)} />
        ))}
      </Words>
      {quantities.length > 0 && (
        <PickOne
          label="Another quantity to sum"
          value=""
          none="Add a quantity…"
          offered={[{ of: quantities.map(named) }]}
          choose={turn}
        />
      )}
    </Line>
  );
}

function Columns({ askable }: Asks) {
  const { columns, put } = useRegister();
  const free = ({ value }: { value: string }) => !columns.includes(value);
  const of = (wanted: "property" | "quantity") =>
    askable
      .filter(({ kind }) => kind === wanted)
      .map(askedName)
      .filter(free);
  return (
    <Line name="Beside each">
      {columns.length > 0 && (
        <Words>
          {columns.map((each) => (
            <Switch
              key={each}
              name={stepName(each)}
              on
              turn={() => put({ columns: columns.filter((other) => other !== each) })}
            />
          ))}
        </Words>
      )}
      {columns.length < MOST_COLUMNS && (
        <PickOne
          label="Columns beside each component"
          value=""
          none={columns.length ? "Add…" : "none"}
          offered={[
            { of: [...STEPS, ...CALLED].map(named).filter(free) },
            { label: "Properties", of: of("property") },
            { label: "Quantities", of: [...QUANTITIES.map(named).filter(free), ...of("quantity")] },
          ]}
          choose={(next) => put({ columns: [...columns, next] })}
        />
      )}
    </Line>
  );
}

function Line({ name, children }: { name: string; children: ReactNode }) {
  return (
    <>
      <span>{name}</span>
      <Box sx={{ display: "grid", gap: 0.5, minWidth: 0 }}>{children}</Box>
    </>
  );
}

function Words({ children }: { children: ReactNode }) {
  return <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.5 }}>{children}</Box>;
}
