import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { tone } from "../theme";
import { stepName } from "./groups";
import { QUANTITIES, useRegister } from "./registerState";
import { useAskable } from "./useAskable";

const STEPS = ["level", "room", "discipline", "model", "class", "type", "system", "material"];
const WORKED: readonly string[] = QUANTITIES;
const MOST_STEPS = 3;
const WORDS = ["Grouped by", "then by", "then by"];

/** How the register is grouped, in up to three steps, and what is summed. */
export function Grouping() {
  const { steps, sums, put } = useRegister();
  const { data: askable = [] } = useAskable();
  const properties = askable
    .filter(({ kind }) => kind === "property")
    .map(({ group, name }) => `property:${group}.${name}`);
  const quantities = [...new Set(askable.filter(({ kind }) => kind === "quantity").map(({ name }) => name))]
    .filter((name) => !sums.includes(name) && !WORKED.includes(name.toLowerCase()))
    .sort();
  const step = (at: number, value: string) => {
    const next = [...steps.slice(0, at), ...(value ? [value] : []), ...steps.slice(at + 1)];
    put({ steps: next.filter((each, k) => next.indexOf(each) === k), open: [] });
  };
  return (
    <Box
      sx={{
        fontSize: 13,
        display: "grid",
        gridTemplateColumns: "auto 1fr",
        gap: 0.5,
        alignItems: "center",
        mt: 1,
      }}
    >
      {[...steps, ...(steps.length < MOST_STEPS ? [""] : [])].map((value, at) => (
        <Box key={value || "another"} component="label" sx={{ display: "contents" }}>
          {WORDS[at]}
          <Box
            component="select"
            value={value}
            aria-label={`Step ${at + 1} of the grouping`}
            onChange={(event) => step(at, event.target.value)}
            sx={{
              font: "inherit",
              color: tone.ink,
              border: `1px solid ${tone.line}`,
              bgcolor: "#fff",
              py: 0.25,
            }}
          >
            {(at > 0 || !value) && <option value="">nothing more</option>}
            {[...STEPS, ...(STEPS.includes(value) || properties.includes(value) || !value ? [] : [value])]
              .filter((each) => each === value || !steps.includes(each))
              .map((each) => (
                <option key={each} value={each}>
                  {stepName(each)}
                </option>
              ))}
            {properties.length > 0 && (
              <optgroup label="a property">
                {properties
                  .filter((each) => each === value || !steps.includes(each))
                  .map((each) => (
                    <option key={each} value={each}>
                      {stepName(each)} ({each.slice(9, each.lastIndexOf("."))})
                    </option>
                  ))}
              </optgroup>
            )}
          </Box>
        </Box>
      ))}
      <span>Summed</span>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.5 }}>
        {[...QUANTITIES, ...sums.filter((each) => !WORKED.includes(each))].map((name) => {
          const on = sums.includes(name);
          return (
            <Button
              key={name}
              variant="outlined"
              aria-pressed={on}
              onClick={() => put({ sums: on ? sums.filter((each) => each !== name) : [...sums, name] })}
              sx={{
                color: tone.ink,
                px: 1,
                py: 0,
                fontSize: 12.5,
                ...(on ? { "&, &:hover": { boxShadow: `inset 0 -3px 0 ${tone.here}` } } : {}),
              }}
            >
              {name}
            </Button>
          );
        })}
        {quantities.length > 0 && (
          <Box
            component="select"
            value=""
            aria-label="Another quantity to sum"
            onChange={(event) => put({ sums: [...sums, event.target.value] })}
            sx={{
              font: "inherit",
              color: tone.ink,
              border: `1px solid ${tone.line}`,
              bgcolor: "#fff",
              maxWidth: 92,
            }}
          >
            <option value="">more ...</option>
            {quantities.map((name) => (
              <option key={name}>{name}</option>
            ))}
          </Box>
        )}
      </Box>
    </Box>
  );
}
