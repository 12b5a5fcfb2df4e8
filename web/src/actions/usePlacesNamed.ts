import { useMemo } from "react";
import { useViewpoints } from "../api/queries";
import { useCameraCommands } from "../open/looking/useCameraCommands";
import { useKeyPlan } from "../open/plan/useInstrument";
import { useOpenTopic } from "../open/topics/useOpenTopic";
import { useTopics } from "../open/topics/useTopics";
import { useOpen } from "../open/useStage";
import { useShowViewpoint } from "../open/views/viewpoints";
import type { Found } from "./found";
import { useStandInRoom } from "./useStandInRoom";

/** Rooms, storeys, grid lines, viewpoints and topics, and how one gets there. */
export function usePlacesNamed(): readonly Found[] {
  const { federation, projectId } = useOpen();
  const look = useCameraCommands();
  const stand = useStandInRoom();
  const plan = useKeyPlan(0);
  const show = useShowViewpoint();
  const { data: viewpoints } = useViewpoints(projectId);
  const { data: topics } = useTopics();
  const openTopic = useOpenTopic();
  return useMemo<readonly Found[]>(
    () => [
      ...federation.rooms.flatMap((room, i) => [
        {
          id: `s/${i}`,
          name: `${room.number} ${room.name}`,
          kind: "room",
          hint: "stand inside",
          run: () => stand(i),
        },
        {
          id: `r/${i}`,
          name: `${room.number} ${room.name}, fitted`,
          kind: "room",
          hint: "fit",
          run: () => void look.fitTo({ kind: "room", room: i }),
        },
      ]),
      ...federation.levels.map((level, i) => ({
        id: `l/${i}`,
        name: level.name,
        kind: "storey",
        hint: "fit",
        run: () => void look.fitTo({ kind: "storey", level: i }),
      })),
      ...(plan?.axes ?? []).map((axis) => ({
        id: `g/${axis.tag}`,
        name: `Grid ${axis.tag}`,
        kind: "grid line",
        hint: "look square on",
        run: () => void look.squareToAxis(axis.tag, axis.ends),
      })),
      ...(viewpoints ?? []).map((viewpoint) => ({
        id: `v/${viewpoint.id}`,
        name: viewpoint.name,
        kind: "viewpoint",
        hint: viewpoint.author,
        run: () => void show(viewpoint),
      })),
      ...(topics ?? []).map((topic) => ({
        id: `t/${topic.id}`,
        name: `${topic.reference} ${topic.said.title}`,
        kind: "topic",
        hint: topic.said.status,
        run: () => openTopic(topic),
      })),
    ],
    [federation, look, stand, plan, viewpoints, show, topics, openTopic],
  );
}
