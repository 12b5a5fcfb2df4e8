import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answerOf, api, type Shapes } from "../api/client";
import { useSigning } from "./useMe";

const ACCOUNT = ["account"] as const;

/** Who one is, as one sees oneself. */
export function useAccount() {
  return useQuery({ queryKey: ACCOUNT, queryFn: () => answerOf(api.GET("/api/account")) });
}

/** What one changes of oneself. */
export function useAccountActs() {
  const client = useQueryClient();
  const { askAgain } = useSigning();
  const told = {
    onSettled: async () => {
      await client.invalidateQueries({ queryKey: ACCOUNT });
      await askAgain();
    },
  };
  return {
    change: useMutation({
      mutationFn: (body: Shapes["AccountWish"]) => answerOf(api.PUT("/api/account", { body })),
      ...told,
    }),
    password: useMutation({
      mutationFn: (body: Shapes["PasswordWish"]) => answerOf(api.PUT("/api/account/password", { body })),
      ...told,
    }),
    begin: useMutation({
      mutationFn: (password: string) =>
        answerOf(api.POST("/api/account/second-factor", { body: { password } })),
    }),
    confirm: useMutation({
      mutationFn: (code: string) =>
        answerOf(api.POST("/api/account/second-factor/confirm", { body: { code } })),
      ...told,
    }),
    codes: useMutation({
      mutationFn: (password: string) =>
        answerOf(api.POST("/api/account/second-factor/codes", { body: { password } })),
      ...told,
    }),
    remove: useMutation({
      mutationFn: (password: string) =>
        answerOf(api.POST("/api/account/second-factor/remove", { body: { password } })),
      ...told,
    }),
  };
}
