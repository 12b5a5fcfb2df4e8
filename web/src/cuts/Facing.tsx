import Box from "@mui/material/Box";
import { useEffect, useState } from "react";
import { Vector3 } from "three";
import { keepMoved, reshaped } from "../open/cuts/cutting";
import { type Cut, facingOf, isLevel, normalOf, sidesOf, turnedTo } from "../open/cuts/shape";
import { useOpen } from "../open/useStage";
import { Figures, parsed, wrongFigure } from "../parts/Figures";
import { tone } from "../style/theme";

const shown = (degrees: number) => String(Number(degrees.toFixed(2)));

/** Which way a plane faces and how it leans, to be typed; it turns about the middle of the building on it. */
export function Facing({ cut }: { cut: Cut }) {
  const { federation, stage } = useOpen();
  const north = federation.building_north_deg;
  const [side] = sidesOf(cut.shape);
  const { facingDeg, leanDeg } = facingOf(side?.normal ?? [0, 0, 1], north);
  // Whatever lies level faces no way.
  const level = isLevel(cut.shape);
  const texts = level ? [shown(leanDeg)] : [shown(facingDeg), shown(leanDeg)];
  const [values, setValues] = useState(texts);
  const key = texts.join();
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is typed is given up when the cut is turned
  useEffect(() => setValues(texts), [key]);
  if (!side || cut.shape.kind === "box") return null;
  const keep = () => {
    const typed = values.map(parsed);
    const [facing, lean] = level ? [facingDeg, typed[0]] : typed;
    if (facing == null || lean == null || values.join() === key) return;
    if (Math.abs(lean) > 90) return setValues(texts);
    const view = stage();
    const bounds = view?.building.bounds;
    const origin = new Vector3().fromArray(federation.origin_m);
    const point = new Vector3().fromArray(side.point_m);
    const middle = bounds ? bounds.getCenter(new Vector3()).add(origin) : point.clone();
    const old = new Vector3().fromArray(side.normal);
    const about = middle.addScaledVector(old, point.sub(middle).dot(old));
    const normal = normalOf({ facingDeg: facing, leanDeg: lean }, north);
    keepMoved(reshaped(federation, cut, turnedTo(cut.shape, normal, about.toArray())));
  };
  return (
    <Box
      component="form"
      onSubmit={(event: React.FormEvent) => {
        event.preventDefault();
        keep();
      }}
      onBlur={keep}
      sx={{ mb: 0.5 }}
    >
      <Figures
        labels={level ? ["tilt, ° (90 level, 0 upright)"] : ["faces, ° from north", "tilt, ° (0 upright)"]}
        about={`of ${cut.name}`}
        values={values}
        set={setValues}
      />
      <Box sx={{ fontSize: 12, color: tone.wrong }}>
        {wrongFigure(values) ||
          (Math.abs(parsed(values.at(-1) ?? "") ?? 0) > 90
            ? "A plane tilts by at most 90 degrees; 90 is horizontal."
            : "")}
      </Box>
      <button type="submit" hidden />
    </Box>
  );
}
