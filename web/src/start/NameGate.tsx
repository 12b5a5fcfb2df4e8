import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import OutlinedInput from "@mui/material/OutlinedInput";
import Typography from "@mui/material/Typography";
import { type FormEvent, useState } from "react";
import { usePerson } from "../api/person";

/** Asks once per browser for the name that what is saved will carry. */
export function NameGate() {
  const { name, setName } = usePerson();
  const [typed, setTyped] = useState("");
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (typed.trim()) setName(typed.trim());
  };
  return (
    <Dialog open={name === ""} aria-label="Before you begin">
      <form onSubmit={submit}>
        <DialogTitle sx={{ pb: 0.5, fontWeight: 600 }}>What is your name?</DialogTitle>
        <DialogContent sx={{ display: "grid", gap: 1.5, width: 380 }}>
          <Typography color="text.secondary" variant="body2">
            Your name is shown with what you save, so that others know whom to ask.
          </Typography>
          <OutlinedInput
            autoFocus
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
            inputProps={{ "aria-label": "Your name", maxLength: 80 }}
          />
          <Button type="submit" variant="contained" disabled={!typed.trim()} sx={{ justifySelf: "start" }}>
            Go on
          </Button>
        </DialogContent>
      </form>
    </Dialog>
  );
}
