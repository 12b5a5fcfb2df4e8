import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import InputBase from "@mui/material/InputBase";
import { useEffect, useMemo, useRef, useState } from "react";
import { useCameraCommands } from "../open/looking/useCameraCommands";
import { numberOf } from "../open/numbering";
import { useSelection } from "../open/selection";
import { useSession } from "../open/session";
import { useTools } from "../open/tools";
import { useOpen } from "../open/useStage";
import { matches } from "../parts/matches";
import { optionGroup } from "../parts/optionGroup";
import { face, tone } from "../style/theme";
import { useActionList } from "./ActionsContext";
import type { Found } from "./found";
import { spokenKey } from "./spokenKey";
import { type ComponentFound, useComponentsFound } from "./useComponentsFound";
import { usePlacesNamed } from "./usePlacesNamed";

const MOST = 40;

/** A component as it is listed: by tag and name, and what else was meant by what was typed. */
function spokenFound({ label, name, field, text }: ComponentFound): string {
  const called = name && name !== label ? `${label} · ${name}` : label;
  return ["tag", "name"].includes(field) ? called : `${called} (${field.replace("_", " ")}: ${text})`;
}

/** Finds actions with their keys, places, viewpoints and components by typing. */
export function Find() {
  const { federation } = useOpen();
  const actions = useActionList();
  const look = useCameraCommands();
  const places = usePlacesNamed();
  const asked = useTools((s) => s.findAsked);
  const input = useRef<HTMLInputElement>(null);
  const [typed, setTyped] = useState("");
  useEffect(() => {
    if (asked) input.current?.focus();
  }, [asked]);
  const { found, count, looking, trouble } = useComponentsFound(typed);
  const named = useMemo<Found[]>(
    () => [
      ...actions.map((a) => ({
        id: `a/${a.name}`,
        name: a.name,
        kind: "action",
        hint: a.key ? spokenKey(a.key) : "",
        run: a.run,
      })),
      ...places,
    ],
    [actions, places],
  );
  const components = useMemo<Found[]>(
    () =>
      found.flatMap((each) => {
        const number = numberOf(federation, each.model, each.global_id);
        if (number < 0) return [];
        return {
          id: `c/${number}`,
          name: spokenFound(each),
          kind: "component",
          hint: [each.discipline, each.level.replace(/^Level /, "")].filter(Boolean).join(" "),
          run: () => {
            useSelection.getState().pick([number]);
            useSession.getState().open("component");
            void look.fitTo({ kind: "components", components: [number] });
          },
        };
      }),
    [found, federation, look],
  );
  const options = useMemo(() => [...named, ...components], [named, components]);
  const listed = typed.trim() ? [...matches(named, typed, MOST), ...components] : [];
  // Enter before the server has answered means what it finds first.
  const [entered, setEntered] = useState("");
  const first = entered && entered === typed && !looking ? components[0] : undefined;
  useEffect(() => {
    if (!first) return;
    setEntered("");
    setTyped("");
    first.run();
    input.current?.blur();
  }, [first]);
  return (
    <Autocomplete
      options={options}
      value={null}
      inputValue={typed}
      onInputChange={(_, text, reason) => setTyped(reason === "input" ? text : "")}
      onChange={(_, found) => {
        found?.run();
        input.current?.blur();
      }}
      onClose={(_, reason) => reason === "escape" && input.current?.blur()}
      getOptionLabel={(f) => f.name}
      getOptionKey={(f) => f.id}
      groupBy={(f) =>
        f.kind === "component" && count > components.length
          ? `Components, the likeliest of ${count}`
          : `${f.kind[0]?.toUpperCase()}${f.kind.slice(1)}s`
      }
      filterOptions={(all, { inputValue }) =>
        // What is there at once stays first: nothing moves under who is about to choose it.
        inputValue.trim() ? listed : all.slice(0, actions.length)
      }
      onKeyDown={(event) => setEntered(event.key === "Enter" && looking && !listed.length ? typed : "")}
      autoHighlight
      clearOnBlur
      noOptionsText={
        trouble || (looking ? "Searching…" : "No match. Try part of a tag, name, room or action.")
      }
      sx={{ flex: "0 1 290px", minWidth: 120 }}
      renderGroup={optionGroup}
      renderOption={({ key, ...props }, f) => (
        <Box component="li" key={key} {...props} sx={{ fontSize: 13.5, display: "flex", gap: 1 }}>
          <Box sx={{ flex: 1 }}>{f.name}</Box>
          <Box sx={{ fontFamily: face.figure, fontSize: 12, color: tone.soft }}>{f.hint}</Box>
        </Box>
      )}
      renderInput={(params) => (
        <InputBase
          ref={params.slotProps.input.ref}
          inputRef={input}
          inputProps={{
            ...params.slotProps.htmlInput,
            "aria-label": "Find a component, place, viewpoint or action",
          }}
          placeholder="Find a component, room, action  /"
          fullWidth
          sx={{
            bgcolor: "#33424f",
            color: tone.paper,
            fontSize: 13.5,
            px: 1.25,
            height: 28,
            borderRadius: "2px",
          }}
        />
      )}
    />
  );
}
