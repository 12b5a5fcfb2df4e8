import { levelAt } from "../open/levels";
import type { Sheet } from "../open/plan/plan";
import { calledMark, openMarked, plateOf, useMarkedTopics } from "../open/topics/useMarkedTopics";
import { useOpen } from "../open/useStage";
import { DrawnButton } from "../parts/DrawnButton";
import { joined } from "../stage/geometry/onScreen";
import { face, tone } from "../style/theme";

const PLATE_PX = 15;

/** Topics of a level as small numbered plates on the key plan; those that crowd are one with how many they are. */
export function TopicsOnPlan({ level, sheet, pxPerM }: { level: number; sheet: Sheet; pxPerM: number }) {
  const { federation } = useOpen();
  const here = useMarkedTopics().filter(({ at }) => levelAt(federation.levels, at.z) === level);
  const places = here.map(({ topic, at }) => {
    const on = sheet.onto(at);
    return { topic, x: on.x * pxPerM, y: on.y * pxPerM };
  });
  return (
    <g data-testid="topics-on-plan">
      {joined(places, PLATE_PX).map((group) => {
        const [first] = group;
        if (!first) return null;
        const topics = group.map(({ topic }) => topic);
        const several = group.length > 1;
        return (
          <DrawnButton key={first.topic.id} label={calledMark(topics)} onPress={() => openMarked(topics)}>
            <title>{calledMark(topics)}</title>
            <rect
              x={first.x - PLATE_PX / 2}
              y={first.y - PLATE_PX / 2}
              width={PLATE_PX}
              height={PLATE_PX}
              fill={several ? tone.ink : tone.paper}
              stroke={several ? tone.paper : tone.ink}
            />
            <text
              x={first.x}
              y={first.y + 3.5}
              textAnchor="middle"
              fontSize={10}
              fontFamily={face.head}
              fontWeight={600}
              fill={several ? tone.paper : tone.ink}
            >
              {several ? `${group.length}×` : plateOf(first.topic)}
            </text>
          </DrawnButton>
        );
      })}
    </g>
  );
}
