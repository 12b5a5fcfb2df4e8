import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useMay } from "../open/mine";
import { follow, handTo, present, presentsNow, useTogether } from "../open/together/togetherState";
import { useTools } from "../open/tools";
import { Badge } from "../parts/Badge";
import { DeskHeading, DeskNote } from "../parts/desk";
import { counted } from "../parts/words";

/** Who has the project open: who presents, who follows, and what can be done about it. */
export function People() {
  const state = useTogether();
  const { people, you, presenter, following } = state;
  const presents = presentsNow(state);
  const may = useMay();
  // What was pressed may be gone then, and the key that closes the panel with it.
  const done = (act: () => void) => {
    act();
    useTools.getState().showPanel(null);
  };
  return (
    <Box data-testid="people" sx={{ p: 1.5, minWidth: 260 }}>
      <DeskHeading>
        {people.length ? `${counted(people.length, "person", "people")} here` : "Nobody here"}
      </DeskHeading>
      {!people.length && <DeskNote>The connection to others is lost. It is retried automatically.</DeskNote>}
      {people.map((person) => (
        <Box
          key={person.id}
          sx={{ display: "flex", gap: 1, alignItems: "center", fontSize: 14, minHeight: 28 }}
        >
          <Badge name={person.name} short={person.initials} colour={person.colour} />
          <Box sx={{ flex: 1, overflowWrap: "anywhere" }}>
            {person.name}
            {person.id === you && " (you)"}
            {person.id === presenter && <b> presents</b>}
            {person.follows && " follows"}
          </Box>
          {presents && person.id !== you && (
            <Button
              variant="text"
              aria-label={`Hand over to ${person.name}`}
              onClick={() => done(() => handTo(person.id))}
            >
              Hand over
            </Button>
          )}
          {person.id === presenter && person.id !== you && (
            <Button variant="text" onClick={() => done(() => follow(!following))}>
              {following ? "Stop following" : "Follow"}
            </Button>
          )}
        </Box>
      ))}
      {people.length > 0 && may("present") && (
        <Button
          variant="outlined"
          sx={{ mt: 1, color: "inherit" }}
          onClick={() => done(() => present(!presents))}
        >
          {presents ? "Stop presenting" : "Present to the others"}
        </Button>
      )}
    </Box>
  );
}
