import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery } from "@tanstack/react-query";
import { useLocation, useNavigate } from "react-router";
import { answerOf, api } from "../api/client";
import { spokenDay } from "../open/dates";
import { useAttempt } from "../parts/attempt";
import { tone } from "../style/theme";
import { Frame } from "./Frame";
import { useMe, useSigning } from "./useMe";
import { Wrong } from "./Wrong";

/** Where a guest link leads: one looks at a project without an account. */
export function GuestPage() {
  const secret = useLocation().hash.slice(1);
  const me = useMe().data?.person;
  const { data, error } = useQuery({
    queryKey: ["guest link", secret],
    queryFn: () => answerOf(api.POST("/api/links/guest", { body: { secret } })),
    enabled: secret !== "",
    staleTime: Infinity,
  });
  const { enter } = useSigning();
  const go = useNavigate();
  const { wrong, attempt } = useAttempt();
  if (!secret)
    return <Frame title="Guest link">This link is not whole. Copy all of it, and open it again.</Frame>;
  if (error) return <Frame title="Guest link">{error.message}</Frame>;
  if (!data) return <Frame title="Guest link">Loading…</Frame>;
  const signed = me && !me.guest_of;
  return (
    <Frame title={data.project}>
      <Box sx={{ color: tone.soft, mb: 2 }}>
        You look at this project as {data.name}, until {spokenDay(data.ends_at)}. Others see that name while
        you are there.
        {signed && ` You are signed in as ${me.name}; going on signs you out.`}
      </Box>
      <Wrong text={wrong} />
      <Button
        variant="contained"
        onClick={() =>
          attempt(async () => {
            await enter(secret);
            await go(`/p/${data.project_id}`, { replace: true });
          })
        }
      >
        Look at it
      </Button>
    </Frame>
  );
}
