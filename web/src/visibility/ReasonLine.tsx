import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { spokenMoment } from "../open/dates";
import { useCameraCommands } from "../open/looking/useCameraCommands";
import { numberingOf } from "../open/numbering";
import { useSelection } from "../open/selection";
import { useOpen } from "../open/useStage";
import { type RuleLine, useViewState } from "../open/visibility/viewState";
import { counted } from "../parts/words";
import { tone } from "../style/theme";

/** One rule: what it says, of whom and when, and what can be done with it. */
export function ReasonLine({ line, place }: { line: RuleLine; place: number }) {
  const { federation } = useOpen();
  const { fitTo } = useCameraCommands();
  const { rule } = line;
  const change = (rules: ReturnType<typeof useViewState.getState>["rules"], name: string) =>
    useViewState.getState().change({ rules }, name);
  /** The components it is the reason for, else those it selects one by one. */
  const decided = () => {
    const { reasons } = useViewState.getState();
    const found: number[] = [];
    for (let n = 0; n < reasons.length; n++) if (reasons[n] === place) found.push(n);
    if (found.length || rule.select.kind !== "these") return found;
    return numberingOf(federation).numbersOf(rule.select);
  };
  const others = () => useViewState.getState().rules.filter((_, i) => i !== place);
  const what = line.says.replace(/^[^:]*: /, "");
  return (
    <Box data-testid="reason" sx={{ borderTop: `1px solid ${tone.line}`, py: 0.75, fontSize: 13.5 }}>
      <Box sx={{ fontWeight: 600, color: rule.off ? tone.soft : tone.ink, overflowWrap: "anywhere" }}>
        {line.says}
        {rule.off && " (switched off)"}
      </Box>
      <Box sx={{ color: tone.soft, fontSize: 12.5 }}>
        {line.decides || rule.off ? counted(line.decides, "component") : "overridden by other rules"}
        {rule.by && ` · ${rule.by}`}
        {rule.at && `, ${spokenMoment(rule.at)}`}
        {line.gone > 0 && ` · ${counted(line.gone, "component")} no longer in the models`}
      </Box>
      {rule.why && <Box sx={{ fontStyle: "italic" }}>{rule.why}</Box>}
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1.25 }}>
        <Button
          variant="text"
          onClick={() =>
            change(
              useViewState.getState().rules.map((r, i) => (i === place ? { ...r, off: !r.off } : r)),
              `switched ${rule.off ? "on" : "off"} "${line.says}"`,
            )
          }
        >
          {rule.off ? "Switch on" : "Switch off"}
        </Button>
        <Button variant="text" onClick={() => useSelection.getState().pick(decided())}>
          Select
        </Button>
        <Button
          variant="text"
          onClick={() => {
            const components = decided();
            if (components.length) void fitTo({ kind: "components", components });
          }}
        >
          Look
        </Button>
        <Button variant="text" onClick={() => change(others(), `removed the rule for ${what}`)}>
          Show again
        </Button>
      </Box>
    </Box>
  );
}
