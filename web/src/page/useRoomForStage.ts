import { useEffect, useRef } from "react";
import { useSession } from "../open/session";

/** Narrower than this, board and desk, slim as they are then, would leave the stage less than half of the window. */
const NARROW = "(max-width: 1015px), (pointer: coarse) and (max-width: 1290px)";

/** In a narrow window one panel stands beside the stage at a time: the one that was opened last. */
export function useRoomForStage(): void {
  const folded = useSession((s) => s.folded);
  const before = useRef(folded);
  useEffect(() => {
    const opened = before.current.board && !folded.board;
    before.current = folded;
    const narrow = window.matchMedia(NARROW);
    const makeRoom = () => {
      if (narrow.matches && !folded.board && !folded.desk)
        useSession.getState().fold(opened ? "desk" : "board", true);
    };
    makeRoom();
    narrow.addEventListener("change", makeRoom);
    return () => narrow.removeEventListener("change", makeRoom);
  }, [folded]);
}
