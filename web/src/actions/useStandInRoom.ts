import { useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import { walkingOf } from "../api/queries";
import { useTurns } from "../open/plan/useInstrument";
import { useSession, withErrorNotice } from "../open/session";
import { useOpen } from "../open/useStage";
import { useWalk } from "../open/walking/useWalk";
import { USUAL_BODY, useWalkState } from "../open/walking/walkState";

/** Stand in a room where the core found most free floor, looking along its longest clear line. */
export function useStandInRoom() {
  const { federation, projectId } = useOpen();
  const client = useQueryClient();
  const turns = useTurns(null);
  const walk = useWalk();
  return useCallback(
    (index: number) =>
      withErrorNotice(async () => {
        const room = federation.rooms[index];
        if (!room) return;
        const cause = `stand: ${room.number} ${room.name}`;
        if (useWalkState.getState().mode === "walk") {
          await walk.land({ kind: "room", room: index }, cause);
          return;
        }
        const walking = await client.fetchQuery({ ...walkingOf(projectId, USUAL_BODY), staleTime: 1000 });
        const stand = walking.stands.find((s) => s.room === index);
        if (!stand) {
          useSession
            .getState()
            .say(
              walking.current
                ? "There is no free floor in this room. Fit the room instead."
                : "The walk map is not ready yet. Try again in a moment, or fit the room.",
            );
          return;
        }
        const [x = 0, y = 0, floorM = 0] = stand.at_m;
        turns.stand({ x, y }, room.level, { cause, bearingDeg: stand.bearing_deg, floorM });
      }),
    [federation, projectId, client, turns, walk],
  );
}
