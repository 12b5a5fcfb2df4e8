import type { AutocompleteRenderGroupParams } from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import { tone } from "../style/theme";

/** Some of what is offered, under a heading; a list of choices may hold choices and groups of them, nothing else. */
export function optionGroup({ key, group, children }: AutocompleteRenderGroupParams) {
  return (
    <Box component="li" key={key} role="group" {...(group ? { "aria-label": group } : {})}>
      {group && (
        <Box
          aria-hidden
          sx={{ lineHeight: "26px", px: 2, fontSize: 12, fontWeight: 600, color: tone.soft, bgcolor: "#fff" }}
        >
          {group}
        </Box>
      )}
      <Box component="ul" role="presentation" sx={{ m: 0, p: 0 }}>
        {children}
      </Box>
    </Box>
  );
}
