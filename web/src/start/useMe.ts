import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import { answerOf, api, type Shapes } from "../api/client";
import { useSignedOut } from "../api/signedOut";

const ME = ["me"] as const;
/** What is the same whoever one is: who one is, and what the link is for that one came by, which is good no more. */
const STAYS: readonly string[] = [...ME, "link", "guest link"];

/** Who is signed in at this browser, and whether one has to be. */
export function useMe() {
  return useQuery({ queryKey: ME, queryFn: () => answerOf(api.GET("/api/me")), staleTime: Infinity });
}

/** Becoming somebody, and nobody again; of what one had seen before nothing stays. */
export function useSigning() {
  const client = useQueryClient();
  const become = useCallback(
    (person: Shapes["SignedPerson"] | null) => {
      client.removeQueries({ predicate: ({ queryKey }) => !STAYS.includes(String(queryKey[0])) });
      client.setQueryData<Shapes["Me"]>(ME, (before) => ({
        person,
        closed: true,
        demo: before?.demo ?? [],
        elsewhere: before?.elsewhere ?? "",
        mailbox: before?.mailbox ?? false,
      }));
      // Whom one may be and whose mails one sees depends on who one is.
      void client.invalidateQueries({ queryKey: ME });
    },
    [client],
  );
  const be = useCallback(
    (person: Shapes["SignedPerson"] | null) => {
      useSignedOut.setState({ times: 0, byOneself: !person });
      become(person);
    },
    [become],
  );
  return {
    /** Sign in; whether a code is asked for, and nobody is signed in yet. */
    signIn: async (name: string, password: string, code: string) => {
      const { person, asks_code } = await answerOf(
        api.POST("/api/sign-in", { body: { name, password, code } }),
      );
      if (person) be(person);
      return asks_code;
    },
    use: async (body: Shapes["LinkUsed"]) => be(await answerOf(api.POST("/api/links/use", { body }))),
    beOneOfTheDemo: async (key: string) =>
      be(await answerOf(api.POST("/api/demo/sign-in", { body: { key } }))),
    enter: async (secret: string) => {
      await answerOf(api.POST("/api/links/enter", { body: { secret } }));
      be((await answerOf(api.GET("/api/me"))).person);
    },
    signOut: async (everywhere: boolean) => {
      await answerOf(api.POST(everywhere ? "/api/sign-out-everywhere" : "/api/sign-out"));
      be(null);
    },
    /** Be signed in with what the provider of accounts sent along; the page that one came for. */
    finishElsewhere: useCallback(
      async (code: string, state: string) => {
        const { person, back_to } = await answerOf(
          api.POST("/api/elsewhere/finish", { body: { code, state } }),
        );
        be(person);
        return back_to;
      },
      [be],
    ),
    removeOneself: async (password: string) => {
      await answerOf(api.POST("/api/account/remove", { body: { password } }));
      be(null);
    },
    /** Ask for oneself again, after something was changed. */
    askAgain: useCallback(() => client.invalidateQueries({ queryKey: ME }), [client]),
    /** Ask who is signed in here: in another tab one may have signed out, and somebody else in. */
    lookWhoIsHere: useCallback(async () => {
      const { person } = await client.fetchQuery({
        queryKey: ["who is here"],
        queryFn: () => answerOf(api.GET("/api/me")),
        staleTime: 0,
      });
      if (person?.key !== client.getQueryData<Shapes["Me"]>(ME)?.person?.key) become(person);
    }, [client, become]),
  };
}
