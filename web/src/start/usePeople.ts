import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answerOf, api, type Shapes } from "../api/client";

const PEOPLE = ["people"] as const;

/** Where a link leads that sets a password. */
export function welcomeAddress(secret: string): string {
  return `${window.location.origin}/welcome#${secret}`;
}

/** Everybody who may sign in. */
export function usePeople() {
  return useQuery({ queryKey: PEOPLE, queryFn: () => answerOf(api.GET("/api/people")) });
}

/** Inviting people; each answers with the whole link that is to be handed on, or null where it was mailed. */
export function useInviting() {
  const client = useQueryClient();
  const onSettled = () => client.invalidateQueries({ queryKey: PEOPLE });
  const whole = ({ secret }: Shapes["LinkToHandOn"]) => (secret ? welcomeAddress(secret) : null);
  const invite = useMutation({
    mutationFn: async (body: Shapes["NewPerson"]) => whole(await answerOf(api.POST("/api/people", { body }))),
    onSettled,
  });
  const reset = useMutation({
    mutationFn: async (key: string) => whole(await answerOf(api.POST("/api/people/link", { body: { key } }))),
    onSettled,
  });
  const change = useMutation({
    mutationFn: ({ id, body }: { id: string; body: Shapes["PersonWish"] }) =>
      answerOf(api.PUT("/api/people/{person_id}", { params: { path: { person_id: id } }, body })),
    onSettled,
  });
  const forgetCodes = useMutation({
    mutationFn: (id: string) =>
      answerOf(
        api.POST("/api/people/{person_id}/second-factor/remove", { params: { path: { person_id: id } } }),
      ),
    onSettled,
  });
  const remove = useMutation({
    mutationFn: (id: string) =>
      answerOf(api.DELETE("/api/people/{person_id}", { params: { path: { person_id: id } } })),
    onSettled,
  });
  return { invite, reset, change, forgetCodes, remove };
}
