import { levelAt } from "../open/levels";
import { calledMark, openMarked, plateOf, useMarkedTopics } from "../open/topics/useMarkedTopics";
import { useOpen } from "../open/useStage";
import { DrawnButton } from "../parts/DrawnButton";
import type { OnPlanProps } from "../parts/feature";
import { joined } from "../stage/geometry/onScreen";
import { face, tone } from "../style/theme";

const PLATE_PX = 15;
const DOT_PX = 8;

/**
 * Topics of a level as small numbered plates on the key plan; those that crowd are one with how many they are. On a small
 * plan, where a plate is as large as a room, they are dots without numbers.
 */
export function TopicsOnPlan({ level, sheet, pxPerM, small }: OnPlanProps) {
  const px = small ? DOT_PX : PLATE_PX;
  const { federation } = useOpen();
  const here = useMarkedTopics().filter(({ at }) => levelAt(federation.levels, at.z) === level);
  const places = here.map(({ topic, at }) => {
    const on = sheet.onto(at);
    return { topic, x: on.x * pxPerM, y: on.y * pxPerM };
  });
  return (
    <g data-testid="topics-on-plan">
      {joined(places, px).map((group) => {
        const [first] = group;
        if (!first) return null;
        const topics = group.map(({ topic }) => topic);
        const several = group.length > 1;
        return (
          <DrawnButton key={first.topic.id} label={calledMark(topics)} onPress={() => openMarked(topics)}>
            <title>{calledMark(topics)}</title>
            <rect
              x={first.x - px / 2}
              y={first.y - px / 2}
              width={px}
              height={px}
              fill={several || small ? tone.ink : tone.paper}
              stroke={several || small ? tone.paper : tone.ink}
            />
            {!small && (
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
            )}
          </DrawnButton>
        );
      })}
    </g>
  );
}
