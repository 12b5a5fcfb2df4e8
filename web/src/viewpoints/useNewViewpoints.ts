import { useViewpoints } from "../api/queries";
import { useOpen } from "../open/useStage";

/** How many viewpoints others kept or changed since this person went through them. */
export function useNewViewpoints(): number {
  const { projectId } = useOpen();
  return useViewpoints(projectId).data?.filter((each) => each.new).length ?? 0;
}
