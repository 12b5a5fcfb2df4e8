import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import NativeSelect from "@mui/material/NativeSelect";
import { useState } from "react";
import { type Shelf, standsIn } from "../open/views/shelf";
import { playTour } from "../open/views/tourState";
import { useFolderActs, useFolders } from "../open/views/useFolders";
import { DeskActs } from "../parts/desk";
import { NameField } from "../parts/NameField";
import { Only } from "../parts/Only";

/** What is done with a folder: it is named, ordered, put into another one, played and deleted. */
export function FolderActs(props: {
  shelf: Shelf;
  /** The folder of the same folder that stands above it. */
  above: string | null;
}) {
  const { shelf, above } = props;
  const { data: folders = [] } = useFolders();
  const { rename, remove, putBefore, putInto, make } = useFolderActs();
  const [naming, setNaming] = useState(false);
  const { folder, inside } = shelf;
  if (!folder) return null;
  const others = folders.filter((each) => !standsIn(each, folder, folders));
  if (naming)
    return (
      <Box onBlur={() => setNaming(false)}>
        <NameField
          label="Name"
          field={`name of folder ${folder.id}`}
          about={`Name of the folder ${folder.name}`}
          value={folder.name}
          keep={(name) => rename(folder, name)}
        />
      </Box>
    );
  return (
    <DeskActs>
      <Only to="change folders, sets and routes">
        <Button variant="text" aria-label={`rename ${folder.name}`} onClick={() => setNaming(true)}>
          Rename
        </Button>
        {above && (
          <Button
            variant="text"
            aria-label={`${folder.name} further up`}
            onClick={() => void putBefore(folder, above)}
          >
            Further up
          </Button>
        )}
        <Button
          variant="text"
          aria-label={`a folder in ${folder.name}`}
          onClick={() => void make("New folder", folder.id)}
        >
          New folder in it
        </Button>
        {(others.length > 0 || folder.within) && (
          <NativeSelect
            value=""
            onChange={(event) => {
              const to = event.target.value;
              if (to) void putInto(folder, to === "none" ? null : to);
            }}
            inputProps={{ "aria-label": `Put ${folder.name} into` }}
            sx={{ fontSize: 13, maxWidth: 110 }}
          >
            <option value="">Put into…</option>
            {others
              .filter(({ id }) => id !== folder.within)
              .map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            {folder.within && <option value="none">no folder</option>}
          </NativeSelect>
        )}
      </Only>
      {inside.length > 0 && (
        <Button
          variant="text"
          aria-label={`play ${folder.name}`}
          onClick={() => playTour(folder.name, inside)}
        >
          Play
        </Button>
      )}
      <Only to="change folders, sets and routes">
        <Button variant="text" aria-label={`delete ${folder.name}`} onClick={() => void remove(folder)}>
          Delete
        </Button>
      </Only>
    </DeskActs>
  );
}
