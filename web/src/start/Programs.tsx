import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answerOf, api } from "../api/client";
import { useAttempt } from "../parts/attempt";
import { tone } from "../style/theme";
import { SignInField } from "./SignInField";
import { Wrong } from "./Wrong";

const PROGRAMS = ["server", "programs"] as const;
const NONE = { name: "", address: "" };

/** The programs that may ask people to let them in; for those who run the server. */
export function Programs() {
  const client = useQueryClient();
  const { data } = useQuery({ queryKey: PROGRAMS, queryFn: () => answerOf(api.GET("/api/server/programs")) });
  const onSettled = () => client.invalidateQueries({ queryKey: PROGRAMS });
  const add = useMutation({
    mutationFn: (body: typeof NONE) => answerOf(api.POST("/api/server/programs", { body })),
    onSettled,
  });
  const remove = useMutation({
    mutationFn: (program_id: string) =>
      answerOf(api.DELETE("/api/server/programs/{program_id}", { params: { path: { program_id } } })),
    onSettled,
  });
  const { wrong, attempt } = useAttempt();
  const [wish, setWish] = useState(NONE);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    attempt(async () => {
      await add.mutateAsync(wish);
      setWish(NONE);
    });
  };
  return (
    <Box component="section" sx={{ mt: 4 }}>
      <Box component="h2" sx={{ fontSize: 18, fontWeight: 600, m: 0, mb: 1 }}>
        Programs of others
      </Box>
      <Box sx={{ color: tone.soft, fontSize: 13.5, mb: 1 }}>
        A program that is added here may send people to this server, to let it act for them (OAuth 2.0).
      </Box>
      <Box component="form" onSubmit={submit} sx={{ display: "grid", gap: 1, maxWidth: 380 }}>
        <SignInField
          label="Name of the program"
          value={wish.name}
          put={(name) => setWish({ ...wish, name })}
          fills="off"
        />
        <SignInField
          label="Address for answers"
          value={wish.address}
          put={(address) => setWish({ ...wish, address })}
          fills="off"
          hint="Its maker says it: https://…, or http://127.0.0.1/… on the person's machine."
        />
        <Wrong text={wrong} />
        <Button
          type="submit"
          variant="contained"
          disabled={!wish.name.trim() || !wish.address.trim()}
          sx={{ justifySelf: "start" }}
        >
          Add the program
        </Button>
      </Box>
      <Box component="ul" sx={{ listStyle: "none", p: 0, mt: 2, maxWidth: 640 }}>
        {data?.map((each) => (
          <Box
            key={each.id}
            component="li"
            data-testid="program"
            sx={{
              display: "flex",
              gap: 2,
              alignItems: "baseline",
              borderTop: `1px solid ${tone.line}`,
              py: 1,
              overflowWrap: "anywhere",
            }}
          >
            <Box sx={{ flex: 1 }}>
              <Box sx={{ fontWeight: 600 }}>{each.name}</Box>
              <Box sx={{ color: tone.soft, fontSize: 13 }}>
                {each.address}, asks as <span data-testid="client-id">{each.id}</span>
              </Box>
            </Box>
            <Button
              variant="text"
              aria-label={`Remove ${each.name}`}
              onClick={() => attempt(() => remove.mutateAsync(each.id))}
            >
              Remove
            </Button>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
