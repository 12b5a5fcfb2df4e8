import Button from "@mui/material/Button";
import { openBin } from "../open/binState";

/** The way to what was deleted. */
export function BinLink() {
  return (
    <Button variant="text" sx={{ display: "block", ml: 0, mt: 2 }} onClick={openBin}>
      Bin
    </Button>
  );
}
