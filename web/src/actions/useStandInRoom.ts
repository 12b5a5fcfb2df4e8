import { useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import { keyPlanQuery, useTurns } from "../keyplan/useInstrument";
import { useOpen } from "../project/useStage";

/** Stand in a room where it has most space, looking the same way as now. */
export function useStandInRoom() {
  const { federation } = useOpen();
  const client = useQueryClient();
  const turns = useTurns(null);
  return useCallback(
    async (index: number) => {
      const level = federation.rooms[index]?.level ?? -1;
      const sha = federation.levels[level]?.plan;
      if (!sha) return;
      const plan = await client.fetchQuery(keyPlanQuery(sha));
      const room = plan.rooms.find((r) => r.index === index);
      if (room)
        turns.stand(
          { x: room.label[0] ?? 0, y: room.label[1] ?? 0 },
          level,
          `stand: ${room.number} ${room.name}`,
        );
    },
    [federation, client, turns],
  );
}
