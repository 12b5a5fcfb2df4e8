import { useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import { Refused, type Shapes, toBytes } from "../../api/client";
import { walkingOf } from "../../api/queries";
import { Ground } from "../../stage/movers/ground";
import { readTile } from "../../stage/movers/tile";
import { atProjectEnd } from "../perProject";
import { useOpen } from "../useStage";

async function fetchTile(projectId: string, sha: string) {
  return readTile(
    await toBytes(fetch(`/api/projects/${projectId}/walk-tiles/${sha}`), "A piece of the walk map"),
  );
}

function groundOf(projectId: string, walking: Shapes["Walking"]): Ground {
  const shas = new Map(walking.tiles.map((tile) => [`${tile.x}/${tile.y}`, tile.sha256]));
  const [x = 0, y = 0, z = 0] = walking.origin_m;
  return new Ground(
    { originM: [x, y, z], bearingDeg: walking.bearing_deg, cellM: walking.cell_m, tileM: walking.tile_m },
    (tx, ty) => {
      const sha = shas.get(`${tx}/${ty}`);
      return sha ? fetchTile(projectId, sha) : Promise.resolve(null);
    },
  );
}

/** The ground that was walked on last, with its tiles, and what it was made of. */
let kept: { made: string; ground: Ground } | null = null;
atProjectEnd(() => {
  kept = null;
});

/** The walk map of a body as it was made last, and the body; refused before there was one. */
export function useGround() {
  const client = useQueryClient();
  const { projectId } = useOpen();
  return useCallback(
    async (body: string) => {
      const walking = await client.fetchQuery({ ...walkingOf(projectId, body), staleTime: 1000 });
      const who = walking.bodies.find((b) => b.name === body);
      if (!walking.tiles.length || !who)
        throw new Refused(walking.trouble || "The walk map is being made; try again in a moment.");
      const made = JSON.stringify([projectId, body, walking.origin_m, walking.tiles]);
      if (kept?.made !== made) kept = { made, ground: groundOf(projectId, walking) };
      return { ground: kept.ground, who };
    },
    [client, projectId],
  );
}
