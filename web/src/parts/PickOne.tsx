import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import InputBase from "@mui/material/InputBase";
import { tone } from "../style/theme";
import { optionGroup } from "./optionGroup";

/** One of a list: in people's words, with the standard's name beside it where that is another one. */
export interface Named {
  value: string;
  name: string;
  beside?: string;
}

export interface Offered {
  label?: string;
  of: readonly Named[];
}

/** A list to choose from by typing a part of a name, some of it under headings. */
export function PickOne(props: {
  label: string;
  value: string;
  /** What stands first and chooses nothing. */
  none?: string;
  offered: readonly Offered[];
  choose: (value: string) => void;
}) {
  const { label, value, none, offered, choose } = props;
  const known = new Map(
    offered.flatMap(({ label: heading = "", of }) => of.map((each) => [each.value, { ...each, heading }])),
  );
  const nameOf = (option: string) => known.get(option)?.name ?? (option === "" ? (none ?? "") : option);
  return (
    <Autocomplete
      // By their values: what is drawn anew while somebody types stays the same to choose from.
      options={none === undefined ? [...known.keys()] : ["", ...known.keys()]}
      value={value}
      onChange={(_, next) => choose(next)}
      getOptionLabel={nameOf}
      groupBy={(option) => known.get(option)?.heading ?? ""}
      filterOptions={(all, { inputValue }) => {
        const wanted = inputValue.trim().toLowerCase();
        const beside = (option: string) => known.get(option)?.beside ?? "";
        return all.filter((each) => `${nameOf(each)} ${beside(each)}`.toLowerCase().includes(wanted));
      }}
      disableClearable
      selectOnFocus
      handleHomeEndKeys
      noOptionsText="No match. Try fewer letters."
      slotProps={{ popper: { placement: "bottom-start", style: { width: "fit-content" } } }}
      sx={{ width: "100%", minWidth: 0 }}
      renderGroup={optionGroup}
      renderOption={({ key: _, ...rest }, option) => (
        <Box
          component="li"
          key={option}
          {...rest}
          sx={{ fontSize: 13, display: "flex", gap: 1, minHeight: 28 }}
        >
          <span>{nameOf(option)}</span>
          <Box component="span" sx={{ color: tone.soft, fontSize: 12, ml: "auto", pl: 1 }}>
            {known.get(option)?.beside}
          </Box>
        </Box>
      )}
      renderInput={(params) => (
        <InputBase
          ref={params.slotProps.input.ref}
          endAdornment={params.slotProps.input.endAdornment}
          className={params.slotProps.input.className ?? ""}
          inputProps={{ ...params.slotProps.htmlInput, "aria-label": label }}
          fullWidth
          sx={{
            fontSize: 13,
            color: tone.ink,
            border: `1px solid ${tone.line}`,
            bgcolor: "#fff",
            px: 0.5,
            "& .MuiAutocomplete-input": { py: "3px !important", textOverflow: "ellipsis" },
          }}
        />
      )}
    />
  );
}
