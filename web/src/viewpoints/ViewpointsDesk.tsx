import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import NativeSelect from "@mui/material/NativeSelect";
import OutlinedInput from "@mui/material/OutlinedInput";
import { type FormEvent, useEffect, useMemo, useRef } from "react";
import { useViewpoints } from "../api/queries";
import { useTyped } from "../open/drafts";
import { useHabits } from "../open/habits";
import { useOpen } from "../open/useStage";
import { type Shelf, shelves, unfolded } from "../open/views/shelf";
import { useShelf } from "../open/views/shelfState";
import { useFolderActs, useFolders } from "../open/views/useFolders";
import { useViewpointActs } from "../open/views/useViewpointActs";
import { useKeepView } from "../open/views/viewpoints";
import { BinLink } from "../parts/BinLink";
import { DeskHeading, DeskNote } from "../parts/desk";
import { Only } from "../parts/Only";
import { tone } from "../style/theme";
import { ShelfRows } from "./ShelfRows";
import { TickedActs } from "./TickedActs";
import { useBeginFraming } from "./useKeepFramed";

const BRINGS = [
  ["all", "Restores everything"],
  ["eye", "Restores the eye only"],
  ["rest", "Restores all but the eye"],
] as const;

/** Kept views with their pictures, by folders; a click goes there, a drag moves. */
export function ViewpointsDesk() {
  const { projectId } = useOpen();
  const { data, error } = useViewpoints(projectId);
  const { data: folders, error: noFolders } = useFolders();
  const { typed, brings, closed, put } = useShelf();
  const { viewpointsAs, set } = useHabits();
  const looking = typed.trim() !== "";
  const all = useMemo(() => {
    const found = shelves(folders ?? [], data ?? [], typed);
    return looking ? found : unfolded(found, closed);
  }, [folders, data, typed, looking, closed]);
  const wrong = error ?? noFolders;
  useGoneThrough(data !== undefined);
  return (
    <Box>
      <Only to="keep viewpoints">
        <KeepForm count={data?.length ?? 0} />
      </Only>
      <DeskHeading>Viewpoints</DeskHeading>
      {wrong && <DeskNote>{wrong.message}</DeskNote>}
      {data?.length === 0 && (
        <DeskNote>No viewpoints yet. A viewpoint saves the eye and what is shown, for everyone.</DeskNote>
      )}
      {data && data.length > 0 && (
        <OutlinedInput
          fullWidth
          size="small"
          placeholder="Find by name, author or folder"
          value={typed}
          onChange={(event) => put({ typed: event.target.value })}
          inputProps={{ "aria-label": "Find a viewpoint" }}
        />
      )}
      {data && data.length > 0 && (
        <Box
          sx={{ display: "flex", flexWrap: "wrap", columnGap: 0.75, mt: 0.5, "& select": { fontSize: 13 } }}
        >
          <NativeSelect
            value={viewpointsAs}
            inputProps={{ "aria-label": "How viewpoints are listed" }}
            sx={{ fontSize: 13 }}
            onChange={(event) => set({ viewpointsAs: event.target.value === "rows" ? "rows" : "pictures" })}
          >
            <option value="rows">Rows</option>
            <option value="pictures">Pictures</option>
          </NativeSelect>
          <NativeSelect
            value={brings}
            inputProps={{ "aria-label": "What a viewpoint restores" }}
            sx={{ fontSize: 13 }}
            onChange={(event) => {
              const wanted = BRINGS.find(([name]) => name === event.target.value);
              if (wanted) put({ brings: wanted[0] });
            }}
          >
            {BRINGS.map(([name, words]) => (
              <option key={name} value={name}>
                {words}
              </option>
            ))}
          </NativeSelect>
        </Box>
      )}
      <TickedActs views={data ?? []} folders={folders ?? []} />
      {typed && !all.length && <DeskNote>No match. Try fewer letters.</DeskNote>}
      {all.map((shelf, k) => (
        <ShelfRows
          key={shelf.key}
          shelf={shelf}
          above={aboveOf(all.slice(0, k), shelf)}
          alone={all.length === 1}
          all={looking}
        />
      ))}
      <Only to="change folders, sets and routes">
        <NewFolder />
        <Standing />
      </Only>
      <BinLink />
    </Box>
  );
}

function Standing() {
  const { makeStanding } = useViewpointActs();
  return (
    <>
      <DeskHeading>Standing views</DeskHeading>
      <DeskNote>
        Makes a view of each level with and without architecture, each room and each side. Changed views stay
        as they are.
      </DeskNote>
      <Button variant="text" onClick={() => void makeStanding()}>
        Make the standing views
      </Button>
    </>
  );
}

/** The last folder before a shelf that stands where it stands. */
function aboveOf(before: readonly Shelf[], { folder, depth }: Shelf): string | null {
  const beside = before.findLast((each) => each.depth <= depth);
  return folder && beside?.depth === depth ? (beside.folder?.id ?? null) : null;
}

/** Once the desk is left what was on it is no longer new. */
function useGoneThrough(there: boolean) {
  const { look } = useViewpointActs();
  useEffect(() => {
    if (there) return () => void look();
  }, [there, look]);
}

function NewFolder() {
  const { make } = useFolderActs();
  const { typed: name, type: setName, kept } = useTyped("a folder");
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    // What was typed stays until it is kept.
    if (name.trim() && (await make(name.trim()))) kept(name);
  };
  return (
    <Box component="form" onSubmit={submit} sx={{ display: "flex", gap: 0.75, mt: 2 }}>
      <OutlinedInput
        fullWidth
        size="small"
        value={name}
        placeholder="A new folder"
        onChange={(event) => setName(event.target.value)}
        inputProps={{ "aria-label": "Name of a new folder", maxLength: 120 }}
      />
      <Button type="submit" variant="outlined" disabled={!name.trim()} sx={{ color: tone.ink }}>
        Make
      </Button>
    </Box>
  );
}

function KeepForm({ count }: { count: number }) {
  const keep = useKeepView();
  const frame = useBeginFraming();
  const { typed: name, type: setName, kept } = useTyped("a viewpoint");
  const keeping = useRef(new Set<string>());
  const field = useRef<HTMLInputElement>(null);
  const asked = useShelf((s) => s.keeping);
  useEffect(() => {
    if (!asked) return;
    field.current?.focus();
    useShelf.getState().put({ keeping: false });
  }, [asked]);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const asked = name.trim() || `View ${count + 1}`;
    // Enter twice keeps one; another name may be kept before the first one is.
    if (keeping.current.has(asked)) return;
    keeping.current.add(asked);
    const left = document.activeElement;
    // What was typed stays until it is kept.
    if (await keep(asked)) {
      const typedOn = left instanceof HTMLInputElement && left.value !== name;
      kept(name);
      // The next key is for the stage again.
      if (!typedOn && left === document.activeElement && left instanceof HTMLElement) left.blur();
    }
    keeping.current.delete(asked);
  };
  return (
    <form onSubmit={submit}>
      <DeskHeading>Keep this view</DeskHeading>
      <Box sx={{ display: "flex", gap: 0.75 }}>
        <OutlinedInput
          fullWidth
          size="small"
          value={name}
          inputRef={field}
          placeholder={`View ${count + 1}`}
          onChange={(event) => setName(event.target.value)}
          inputProps={{ "aria-label": "Name of the viewpoint", maxLength: 120 }}
        />
        <Button type="submit" variant="contained">
          Keep
        </Button>
      </Box>
      <Button
        variant="text"
        onClick={() => void frame({ name: name.trim() || `View ${count + 1}`, kept: () => kept(name) })}
      >
        Keep with another frame
      </Button>
    </form>
  );
}
