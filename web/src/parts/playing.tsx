import Slider from "@mui/material/Slider";
import { Switch } from "./Switch";

/** A handle to be anywhere in what is played. */
export function Handle(given: { label: string; at: number; end: number; be: (at: number) => void }) {
  const { label, at, end, be } = given;
  return (
    <Slider
      size="small"
      aria-label={label}
      min={0}
      max={end}
      step={0.05}
      value={Math.min(at, end)}
      // Played, it moves with every frame: one that glides there would never arrive.
      sx={{ py: 0.75, display: "block", "& .MuiSlider-thumb, & .MuiSlider-track": { transition: "none" } }}
      onChange={(_, value) => be(value as number)}
    />
  );
}

/** So many times as quick. */
export function Speeds(given: { speeds: readonly number[]; times: number; be: (times: number) => void }) {
  return given.speeds.map((speed) => (
    <Switch key={speed} name={`${speed}×`} on={speed === given.times} turn={() => given.be(speed)} />
  ));
}
