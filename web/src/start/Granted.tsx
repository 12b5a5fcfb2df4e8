import Box from "@mui/material/Box";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answerOf, api } from "../api/client";
import { ROLES } from "../api/constants";
import { spokenDay } from "../open/dates";
import { useAttempt } from "../parts/attempt";
import { EndingRow } from "./EndingRow";
import { Wrong } from "./Wrong";

const GRANTED = ["granted"] as const;

/** Programs that asked on this server's page and were let in, each with its end; nothing where there are none. */
export function Granted() {
  const client = useQueryClient();
  const { data } = useQuery({ queryKey: GRANTED, queryFn: () => answerOf(api.GET("/api/programs")) });
  const end = useMutation({
    mutationFn: (grant_id: string) =>
      answerOf(api.DELETE("/api/programs/{grant_id}", { params: { path: { grant_id } } })),
    onSettled: () => client.invalidateQueries({ queryKey: GRANTED }),
  });
  const { wrong, attempt } = useAttempt();
  if (!data?.length) return null;
  return (
    <Box sx={{ mt: 4, maxWidth: 640 }}>
      <Box component="h2" sx={{ fontSize: 18, fontWeight: 600, m: 0 }}>
        Programs that you let in
      </Box>
      <Wrong text={wrong} />
      <Box component="ul" sx={{ listStyle: "none", p: 0, mt: 1 }}>
        {data.map((each) => (
          <EndingRow
            key={each.id}
            testId="granted"
            name={each.name}
            says={`${ROLES.find(({ role }) => role === each.scope)?.name}, until ${spokenDay(each.ends_at)}`}
            usedAt={null}
            about={`End what ${each.name} may`}
            end={() => attempt(() => end.mutateAsync(each.id))}
          />
        ))}
      </Box>
    </Box>
  );
}
