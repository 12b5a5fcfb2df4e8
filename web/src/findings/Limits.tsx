import Box from "@mui/material/Box";
import type { Shapes } from "../api/client";
import { LEFT_OUT, TOUCH_M } from "../api/constants";
import { type Spoken, unitsNow, useUnits } from "../open/units";
import { Figures } from "../parts/Figures";
import { Tick } from "../parts/Tick";
import { tone } from "../style/theme";

type Rule = Shapes["Check"]["leave_out"][number];
type Read = Pick<Shapes["Check"], "clearance_m" | "touch_m" | "leave_out">;

const RULES = Object.keys(LEFT_OUT) as readonly Rule[];

/** How near is too near, what only touches, and which pairs are left out, as they are typed. */
export class TypedLimits {
  constructor(
    readonly near: string,
    readonly touch: string,
    readonly leaveOut: readonly Rule[],
  ) {}

  wrong(units: Spoken): string {
    const said = units.wrong([this.near, this.touch]);
    if (said) return said;
    return [this.near, this.touch].some(
      (text) => (units.parse(text) ?? 0) < 0 || (units.parse(text) ?? 0) > 100,
    )
      ? `A clearance is between 0 and ${units.length(100, 0)}. Type one such as ${units.typed(0.05)}.`
      : "";
  }

  read(units: Spoken): Read | null {
    if (this.wrong(units)) return null;
    return {
      clearance_m: units.parse(this.near) ?? 0,
      touch_m: units.parse(this.touch) ?? 0,
      leave_out: [...this.leaveOut],
    };
  }
}

export function limitsOf({ clearance_m, touch_m, leave_out }: Read): TypedLimits {
  const units = unitsNow();
  return new TypedLimits(units.typed(clearance_m), units.typed(touch_m), leave_out);
}

export function usualLimits(): TypedLimits {
  return limitsOf({ clearance_m: 0, touch_m: TOUCH_M, leave_out: [...RULES] });
}

/** Typing the limits of a check, and ticking what it leaves out. */
export function Limits({ limits, set }: { limits: TypedLimits; set: (limits: TypedLimits) => void }) {
  const units = useUnits();
  const { near, touch, leaveOut } = limits;
  return (
    <Box>
      <Figures
        labels={[`clearance, ${units.sign}`, `touching tolerance, ${units.sign}`]}
        about="of the check"
        values={[near, touch]}
        set={([a = "", b = ""]) => set(new TypedLimits(a, b, leaveOut))}
        parse={units.parse}
      />
      {limits.wrong(units) && <Box sx={{ fontSize: 12, color: tone.wrong }}>{limits.wrong(units)}</Box>}
      <Box sx={{ fontSize: 12, color: tone.soft, mt: 0.75 }}>Excluded</Box>
      {RULES.map((rule) => (
        <Box key={rule}>
          <Tick
            label={LEFT_OUT[rule]}
            on={leaveOut.includes(rule)}
            set={(on) =>
              set(
                new TypedLimits(
                  near,
                  touch,
                  RULES.filter((r) => (r === rule ? on : leaveOut.includes(r))),
                ),
              )
            }
          />
        </Box>
      ))}
    </Box>
  );
}
