import type { ModelCard, Shapes } from "../api/client";

export type Issue = Shapes["EarlierIssue"];

const moment = (text: string) => new Date(text).getTime();

/** The models with a newer issue from somebody else since one was here before. */
export function broughtSince<M extends Pick<ModelCard, "stands" | "status" | "added_at" | "added_by">>(
  models: readonly M[],
  before: string,
  me: string,
): M[] {
  return models.filter(
    ({ stands, status, added_at, added_by }) =>
      stands && status === "read" && added_by !== me && moment(added_at) > moment(before),
  );
}

/** The issue of a model that one knows: the last one that was there before; null where there was none. */
export function knownIssue(issues: readonly Issue[], before: string): Issue | null {
  const there = issues.filter(({ added_at }) => moment(added_at) <= moment(before));
  return there.reduce<Issue | null>(
    (last, each) => (last && moment(last.added_at) >= moment(each.added_at) ? last : each),
    null,
  );
}
