import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import { useAttempt } from "../parts/attempt";
import { tone } from "../style/theme";
import { Part } from "./Part";
import { SignInField } from "./SignInField";
import { Sure } from "./Sure";
import { useSigning } from "./useMe";
import { Wrong } from "./Wrong";

/** What is kept of oneself, to be taken along; and being removed. */
export function Kept({ removable }: { removable: boolean }) {
  const { removeOneself } = useSigning();
  const { wrong, attempt } = useAttempt();
  const [sure, setSure] = useState(false);
  const [password, setPassword] = useState("");
  return (
    <Part title="What is kept of you">
      <Box sx={{ fontSize: 14, "& a": { color: tone.here } }}>
        <a href="/api/account/kept" download>
          Save it as a file
        </a>
        : yourself, where you are signed in, your projects, what names you, and the record of what you did.
      </Box>
      {sure ? (
        <Sure
          says="You will not sign in any more. What you made stays, and says that a former member made it. This cannot be undone."
          yes="Remove me for good"
          disabled={!password}
          act={() => attempt(() => removeOneself(password))}
          leave={() => setSure(false)}
        >
          <SignInField
            label="Your password"
            value={password}
            put={setPassword}
            fills="current-password"
            first
          />
          <Wrong text={wrong} />
        </Sure>
      ) : (
        removable && (
          <Button variant="text" sx={{ ml: 0, mt: 1 }} onClick={() => setSure(true)}>
            Remove my account
          </Button>
        )
      )}
    </Part>
  );
}
