import { useCallback } from "react";
import { useTurns } from "../keyplan/useInstrument";
import { useSession } from "../project/session";
import { useOpen } from "../project/useStage";
import { useWalk } from "../walk/useWalk";
import { useWalkState } from "../walk/walkState";

/** Stand in a room where the core found most free floor, looking along its longest clear line. */
export function useStandInRoom() {
  const { federation } = useOpen();
  const turns = useTurns(null);
  const walk = useWalk();
  return useCallback(
    (index: number) => {
      const room = federation.rooms[index];
      if (room && useWalkState.getState().mode === "walk") {
        void walk.land({ kind: "room", room: index }, `stand: ${room.number} ${room.name}`);
        return;
      }
      if (!room?.stand) {
        useSession.getState().say("That room has no free floor to stand on; fit it instead.");
        return;
      }
      const [x = 0, y = 0] = room.stand.at_m;
      turns.stand({ x, y }, room.level, {
        cause: `stand: ${room.number} ${room.name}`,
        bearingDeg: room.stand.bearing_deg,
      });
    },
    [federation, turns, walk],
  );
}
