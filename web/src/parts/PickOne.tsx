import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import InputBase from "@mui/material/InputBase";
import { tone } from "../style/theme";

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
  const listed = offered.flatMap(({ label: heading = "", of }) => of.map((each) => ({ ...each, heading })));
  const options = none === undefined ? listed : [{ value: "", name: none, heading: "" }, ...listed];
  // What is chosen stays named where it is offered no more.
  const chosen = options.find((each) => each.value === value) ?? { value, name: value, heading: "" };
  return (
    <Autocomplete
      options={options}
      value={chosen}
      onChange={(_, next) => choose(next.value)}
      getOptionLabel={({ name }) => name}
      getOptionKey={(each) => each.value}
      isOptionEqualToValue={(one, other) => one.value === other.value}
      groupBy={({ heading }) => heading}
      filterOptions={(all, { inputValue }) => {
        const wanted = inputValue.trim().toLowerCase();
        return all.filter(({ name, beside = "" }) => `${name} ${beside}`.toLowerCase().includes(wanted));
      }}
      disableClearable
      selectOnFocus
      handleHomeEndKeys
      noOptionsText="No match. Try fewer letters."
      slotProps={{ popper: { placement: "bottom-start", style: { width: "fit-content" } } }}
      sx={{ width: "100%", minWidth: 0 }}
      renderOption={({ key, ...rest }, { name, beside }) => (
        <Box component="li" key={key} {...rest} sx={{ fontSize: 13, display: "flex", gap: 1, minHeight: 28 }}>
          <span>{name}</span>
          {beside && (
            <Box component="span" sx={{ color: tone.soft, fontSize: 12, ml: "auto", pl: 1 }}>
              {beside}
            </Box>
          )}
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
