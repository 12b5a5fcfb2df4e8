import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answerOf, api, type Shapes } from "../api/client";

const PEOPLE = ["people"] as const;

/** Everybody who may sign in. */
export function usePeople() {
  return useQuery({ queryKey: PEOPLE, queryFn: () => answerOf(api.GET("/api/people")) });
}

/** Inviting people; each answers with the whole link that is to be handed on. */
export function useInviting() {
  const client = useQueryClient();
  const onSettled = () => client.invalidateQueries({ queryKey: PEOPLE });
  const whole = ({ secret }: Shapes["LinkToHandOn"]) => `${window.location.origin}/welcome#${secret}`;
  const invite = useMutation({
    mutationFn: async (body: Shapes["NewPerson"]) => whole(await answerOf(api.POST("/api/people", { body }))),
    onSettled,
  });
  const reset = useMutation({
    mutationFn: async (key: string) => whole(await answerOf(api.POST("/api/people/link", { body: { key } }))),
    onSettled,
  });
  return { invite, reset };
}
