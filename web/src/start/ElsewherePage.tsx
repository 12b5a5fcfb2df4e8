import Box from "@mui/material/Box";
import { useEffect, useRef, useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import { tone } from "../style/theme";
import { Frame } from "./Frame";
import { useSigning } from "./useMe";

/** Where one comes back to from the provider of accounts. */
export function ElsewherePage() {
  const [query] = useSearchParams();
  const { finishElsewhere } = useSigning();
  const go = useNavigate();
  const [wrong, setWrong] = useState("");
  const begun = useRef(false);
  const code = query.get("code");
  const state = query.get("state");
  useEffect(() => {
    // What the provider sent along is good once.
    if (begun.current) return;
    begun.current = true;
    if (!code || !state) {
      setWrong("You were not signed in. Begin anew.");
      return;
    }
    finishElsewhere(code, state).then(
      (page) => go(page, { replace: true }),
      (error: unknown) =>
        setWrong(error instanceof Error ? error.message : "You were not signed in. Begin anew."),
    );
  }, [code, state, finishElsewhere, go]);
  return (
    <Frame title="Sign in">
      {wrong ? (
        <Box role="alert" sx={{ "& a": { color: tone.here } }}>
          {wrong} <Link to="/">Sign in</Link>
        </Box>
      ) : (
        "Signing in…"
      )}
    </Frame>
  );
}
