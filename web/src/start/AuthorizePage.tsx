import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import { answerOf, api, type Shapes } from "../api/client";
import { ROLES } from "../api/constants";
import { usePerson } from "../api/person";
import { useAttempt } from "../parts/attempt";
import { Frame } from "./Frame";
import { Wrong } from "./Wrong";

/** Where a program sends people to let it act for them; what it asks with is in the address. */
export function AuthorizePage() {
  const [query] = useSearchParams();
  const name = usePerson((s) => s.name);
  const { wrong, attempt } = useAttempt();
  const given = (word: string) => query.get(word) ?? "";
  const wish: Shapes["ProgramAsks"] = {
    client_id: given("client_id"),
    response_type: given("response_type"),
    redirect_uri: given("redirect_uri"),
    scope: given("scope"),
    state: given("state"),
    code_challenge: given("code_challenge"),
    code_challenge_method: given("code_challenge_method"),
  };
  const { data, error } = useQuery({
    queryKey: ["program asks", query.toString()],
    queryFn: () => answerOf(api.POST("/api/programs/ask", { body: wish })),
    staleTime: Number.POSITIVE_INFINITY,
  });
  const answer = (allowed: boolean) =>
    attempt(async () => {
      const { address } = await answerOf(api.POST("/api/programs/answer", { body: { ...wish, allowed } }));
      window.location.assign(address);
    });
  const role = ROLES.find((each) => each.role === data?.scope);
  if (error) return <Frame title="Access for another program">{error.message}</Frame>;
  if (!data) return <Frame title="Access for another program">Loading…</Frame>;
  return (
    <Frame title={`Let ${data.name} in?`}>
      <Box sx={{ maxWidth: 560 }}>
        {data.name} wants to act as {name} in your projects, as far as you may there and no further than{" "}
        <b>{role?.name.toLowerCase()}</b>: it {role?.says}. It may do so for 90 days, or until you end it on
        the page for access for other programs.
        <Wrong text={wrong} />
        <Box sx={{ display: "flex", gap: 1, mt: 2 }}>
          <Button variant="contained" onClick={() => answer(true)}>
            Let it in
          </Button>
          <Button variant="outlined" onClick={() => answer(false)}>
            Do not
          </Button>
        </Box>
      </Box>
    </Frame>
  );
}
