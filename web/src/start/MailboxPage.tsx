import Box from "@mui/material/Box";
import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { answerOf, api } from "../api/client";
import { spokenMoment } from "../open/dates";
import { tone } from "../style/theme";
import { Frame } from "./Frame";
import { Wrong } from "./Wrong";

const LOOK_MS = 3000;
const LINK = /(https?:\/\/\S+)/;

/** Mails that are not sent, as no server for mail is set: the owners of the server, or who looks at the demo, read them here. */
export function MailboxPage() {
  const { data, error } = useQuery({
    queryKey: ["mailbox"],
    queryFn: () => answerOf(api.GET("/api/mailbox")),
    refetchInterval: LOOK_MS,
  });
  return (
    <Frame title="Mailbox">
      <Box sx={{ color: tone.soft, mb: 2 }}>
        Mails that this server has not sent. Until a server for mail is set, all of them stay here for a week.
      </Box>
      <Wrong text={error?.message} />
      {data?.length === 0 && <Box>No mail.</Box>}
      {data?.map((each) => (
        <Box
          key={each.id}
          component="article"
          data-testid="mail"
          sx={{
            borderTop: `1px solid ${tone.line}`,
            py: 1.5,
            maxWidth: 640,
            fontSize: 14,
            overflowWrap: "anywhere",
          }}
        >
          <Box sx={{ fontWeight: 600 }}>{each.subject}</Box>
          <Box sx={{ color: tone.soft, fontSize: 13 }}>
            to {each.to}, {spokenMoment(each.made_at)}
          </Box>
          {each.trouble && <Box sx={{ color: tone.wrong, fontSize: 13 }}>{each.trouble}</Box>}
          <Box sx={{ whiteSpace: "pre-wrap", mt: 1, "& a": { color: tone.here } }}>{linked(each.text)}</Box>
        </Box>
      ))}
    </Frame>
  );
}

/** A text with its addresses as links. */
function linked(text: string): ReactNode[] {
  return text.split(LINK).map((part, at) =>
    at % 2 ? (
      <a key={part} href={part}>
        {part}
      </a>
    ) : (
      part
    ),
  );
}
