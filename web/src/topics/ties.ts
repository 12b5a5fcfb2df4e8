import type { Ties } from "../open/mine";
import type { Topic } from "../open/topics/listed";

/** Whose a topic is: of who made it, and of whom it was assigned to or who was asked about it. */
export function tiesOf({ author, said, question }: Topic): Ties {
  return { made: author, given: [said.assigned_to, question?.to] };
}
