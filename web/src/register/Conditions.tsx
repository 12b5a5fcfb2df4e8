import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useId } from "react";
import type { Shapes } from "../api/client";
import { type Draft, HOWS, type How, howsOf, PLAIN } from "../open/selections/conditions";
import { stepName } from "../open/selections/groups";
import { useRegister } from "../open/selections/registerState";
import { useOpen } from "../open/useStage";
import { LISTED, useValues } from "../open/useValues";
import { PickOne } from "../parts/PickOne";
import { tone } from "../style/theme";
import { askedName, useAskable } from "./useAskable";

const FIELD = {
  fontFamily: "inherit",
  fontSize: 13,
  color: tone.ink,
  border: `1px solid ${tone.line}`,
  bgcolor: "#fff",
  px: 0.5,
  py: 0.4,
  minWidth: 0,
} as const;

/** Which components the register lists: conditions, all of which must hold. */
export function Conditions() {
  const { drafts, put } = useRegister();
  const { data } = useAskable();
  const askable = data ?? [];
  const change = (at: number, part: Partial<Draft>) =>
    put({ drafts: drafts.map((draft, k) => (k === at ? { ...draft, ...part } : draft)) });
  return (
    <Box data-testid="conditions" sx={{ display: "grid", gap: 0.75 }}>
      {drafts.map((draft, at) => (
        <OneCondition
          // biome-ignore lint/suspicious/noArrayIndexKey: a condition is its place in the list
          key={at}
          draft={draft}
          askable={askable}
          change={(part) => change(at, part)}
          remove={() =>
            put({ drafts: drafts.filter((_, k) => k !== at), ...(drafts.length === 1 ? { set: null } : {}) })
          }
        />
      ))}
      <Box>
        <Button
          variant="text"
          sx={{ ml: 0 }}
          onClick={() => put({ drafts: [...drafts, { what: "system", how: "equal", typed: "" }] })}
        >
          {drafts.length ? "Add a condition" : "Only components that meet a condition"}
        </Button>
      </Box>
    </Box>
  );
}

function OneCondition(props: {
  draft: Draft;
  askable: readonly Shapes["Askable"][];
  change: (part: Partial<Draft>) => void;
  remove: () => void;
}) {
  const { draft, askable, change, remove } = props;
  const values = useId();
  const { what, how, typed } = draft;
  const of = (kind: "property" | "quantity") => askable.filter((each) => each.kind === kind).map(askedName);
  const asked = askable.find((each) => askedName(each).value === what);
  const ask = (next: string) =>
    change({ what: next, how: howsOf(next).includes(how) ? how : "equal", typed: "" });
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "1fr auto", gap: 0.5 }}>
      <PickOne
        label="Question"
        value={what}
        offered={[
          { of: Object.entries(PLAIN).map(([value, name]) => ({ value, name })) },
          { label: "Properties", of: of("property") },
          { label: "Quantities", of: of("quantity") },
          ...(what.includes(":") && !asked ? [{ of: [{ value: what, name: stepName(what) }] }] : []),
        ]}
        choose={ask}
      />
      <Button variant="text" aria-label="Remove the condition" onClick={remove} sx={{ minWidth: 0 }}>
        ×
      </Button>
      <Box sx={{ display: "flex", gap: 0.5, gridColumn: "1 / -1" }}>
        <Box
          component="select"
          aria-label="Comparison"
          value={how}
          onChange={(e) => change({ how: e.target.value as How })}
          sx={{ ...FIELD, flex: "0 0 auto" }}
        >
          {howsOf(what).map((each) => (
            <option key={each} value={each}>
              {HOWS[each]}
            </option>
          ))}
        </Box>
        {how !== "missing" && how !== "present" && (
          <Box
            component="input"
            aria-label="Value"
            value={typed}
            list={values}
            placeholder={
              how === "between"
                ? "100 to 150 mm"
                : asked?.units.length
                  ? `150 mm, 0.15 ${asked.units[0]}`
                  : ""
            }
            onChange={(e) => change({ typed: e.target.value })}
            sx={{ ...FIELD, flex: 1 }}
          />
        )}
        <datalist id={values}>
          {asked?.values.map((value) => (
            <option key={value} value={value} />
          ))}
          <PlainValues what={what} />
        </datalist>
      </Box>
    </Box>
  );
}

/** What components have for what is asked, to choose from. */
function PlainValues({ what }: { what: string }) {
  const { federation } = useOpen();
  const { data } = useValues(LISTED.find((each) => each === what));
  const here =
    what === "level"
      ? federation.levels.map(({ name }) => name)
      : what === "room"
        ? federation.rooms.map(({ number, name }) => `${number} ${name}`)
        : what === "discipline"
          ? federation.disciplines.map(({ name }) => name)
          : what === "model"
            ? federation.models.map(({ name }) => name)
            : (data ?? []);
  return here.map((value) => <option key={value} value={value} />);
}
