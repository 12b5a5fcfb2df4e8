import { useEffect, useRef } from "react";
import { useSession } from "../open/session";

/** Narrower than this, board and desk, slim as they are then, would leave the stage less than half of the window. */
const NARROW = "(max-width: 899px), (pointer: coarse) and (max-width: 1290px)";

/** In a narrow window one panel stands beside the stage at a time: the one that was opened last. The other is back with the room. */
export function useRoomForStage(): void {
  const folded = useSession((s) => s.folded);
  const before = useRef(folded);
  /** What the narrow window folded, and nobody else. */
  const made = useRef<"board" | "desk" | null>(null);
  useEffect(() => {
    const opened = before.current.board && !folded.board;
    before.current = folded;
    const narrow = window.matchMedia(NARROW);
    if (made.current && !folded[made.current]) made.current = null;
    const makeRoom = () => {
      if (narrow.matches && !folded.board && !folded.desk) {
        made.current = opened ? "desk" : "board";
        useSession.getState().fold(made.current, true);
      } else if (!narrow.matches && made.current) {
        useSession.getState().fold(made.current, false);
        made.current = null;
      }
    };
    makeRoom();
    narrow.addEventListener("change", makeRoom);
    return () => narrow.removeEventListener("change", makeRoom);
  }, [folded]);
}
