import Box from "@mui/material/Box";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import Tooltip from "@mui/material/Tooltip";
import { useState } from "react";
import { Link } from "react-router";
import { initials, inkOn, NO_COLOUR, usePerson } from "../api/person";
import { useAttempt } from "../parts/attempt";
import { tone } from "../style/theme";
import { useMe, useSigning } from "./useMe";
import { Wrong } from "./Wrong";

/** Who one is: signed in, with the ways out; else by a name that can be changed. */
export function Who() {
  const { name, setName } = usePerson();
  const { data } = useMe();
  const me = data?.person;
  const others = data?.demo.filter(({ key }) => key !== me?.key) ?? [];
  const [at, setAt] = useState<HTMLElement | null>(null);
  const { signOut, beOneOfTheDemo } = useSigning();
  const { wrong, attempt } = useAttempt();
  const short = me?.initials || initials(name) || "?";
  const out = (everywhere: boolean) => attempt(() => signOut(everywhere));
  return (
    <>
      <Tooltip title={me ? `${name}: signed in` : `${name || "No name yet"}: click to change the name`}>
        <Box
          component="button"
          type="button"
          aria-label={
            me ? `${short}: you are ${name}; sign out` : `${short}: you are ${name}; change the name`
          }
          aria-haspopup={me ? "menu" : undefined}
          onClick={(event) => (me ? setAt(event.currentTarget) : setName(""))}
          sx={{
            ml: 1,
            flexShrink: 0,
            width: 28,
            height: 28,
            p: 0,
            borderRadius: "50%",
            border: 0,
            bgcolor: me?.colour || NO_COLOUR,
            color: inkOn(me?.colour || NO_COLOUR),
            fontWeight: 600,
            fontSize: 12,
            cursor: "pointer",
          }}
        >
          {short}
        </Box>
      </Tooltip>
      {me && (
        <Menu anchorEl={at} open={at !== null} onClose={() => setAt(null)}>
          <Box sx={{ px: 2, py: 0.5, fontSize: 13 }}>
            <Box sx={{ fontWeight: 600 }}>{name}</Box>
            <Box sx={{ color: tone.soft }}>
              {me.guest_of ? "looks by a guest link" : `signs in as ${me.key}`}
            </Box>
            <Wrong text={wrong} />
          </Box>
          {me.owner && (
            <MenuItem component={Link} to="/people" onClick={() => setAt(null)}>
              People
            </MenuItem>
          )}
          {me.owner && (
            <MenuItem component={Link} to="/server" onClick={() => setAt(null)}>
              Server
            </MenuItem>
          )}
          {me.owner && (
            <MenuItem component={Link} to="/record" onClick={() => setAt(null)}>
              Record of the server
            </MenuItem>
          )}
          {data?.mailbox && (
            <MenuItem component={Link} to="/mailbox" onClick={() => setAt(null)}>
              Mailbox
            </MenuItem>
          )}
          {!me.guest_of && (
            <MenuItem component={Link} to="/account" onClick={() => setAt(null)}>
              Your account
            </MenuItem>
          )}
          {!me.guest_of && (
            <MenuItem component={Link} to="/tokens" onClick={() => setAt(null)}>
              Access for other programs
            </MenuItem>
          )}
          {others.map(({ key, name: called, says }) => (
            <MenuItem
              key={key}
              onClick={() => {
                setAt(null);
                attempt(() => beOneOfTheDemo(key));
              }}
            >
              Be {called}
              <Box component="span" sx={{ color: tone.soft, fontSize: 12.5, ml: 1 }}>
                {says}
              </Box>
            </MenuItem>
          ))}
          <MenuItem onClick={() => out(false)}>Sign out</MenuItem>
          <MenuItem onClick={() => out(true)}>Sign out everywhere</MenuItem>
        </Menu>
      )}
    </>
  );
}
