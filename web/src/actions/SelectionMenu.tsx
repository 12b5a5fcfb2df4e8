import Box from "@mui/material/Box";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import { MENU } from "../open/action";
import { useAsked } from "../open/asked";
import { face, tone } from "../style/theme";
import { useActionList } from "./ActionsContext";
import { spokenKey } from "./spokenKey";

const close = () => useAsked.setState({ asked: null });

/** What can be done with what is selected, at the component: by a right click, a long touch or a key. */
export function SelectionMenu() {
  const asked = useAsked((s) => s.asked);
  const all = useActionList();
  // A menu that is closed is gone at once: while it went it would take clicks from the stage.
  if (!asked) return null;
  const actions = MENU.flatMap((name) => all.filter(({ menu }) => menu === name));
  return (
    <Menu
      open
      onClose={close}
      anchorReference="anchorPosition"
      anchorPosition={{ left: asked.at.x, top: asked.at.y }}
      transitionDuration={0}
      slotProps={{
        list: { dense: true, "aria-label": "What can be done with it" },
        paper: { sx: { border: `1px solid ${tone.ink}`, boxShadow: "3px 3px 0 rgba(30,43,54,.15)" } },
      }}
    >
      {actions.map((action) => (
        <MenuItem
          key={action.menu}
          onClick={() => {
            action.run();
            close();
          }}
          sx={{ fontSize: 14, gap: 3, justifyContent: "space-between" }}
        >
          {action.menu}
          <Box component="span" sx={{ fontFamily: face.figure, fontSize: 12, color: tone.soft }}>
            {action.key && spokenKey(action.key)}
          </Box>
        </MenuItem>
      ))}
    </Menu>
  );
}
