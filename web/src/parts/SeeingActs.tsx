import Button from "@mui/material/Button";
import type { Selector } from "../open/visibility/selectors";
import { useSeeing } from "../open/visibility/useSeeing";

/** Showing, hiding and fading what is meant by name, in a row of acts. */
export function SeeingActs({ select }: { select: Selector }) {
  const seeing = useSeeing();
  return (
    <>
      <Button variant="text" onClick={() => seeing.only(select)}>
        Isolate
      </Button>
      <Button variant="text" onClick={() => seeing.put("hide", select)}>
        Hide
      </Button>
      <Button variant="text" onClick={() => seeing.fadeRest(select)}>
        Fade others
      </Button>
    </>
  );
}
