// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { AWAY } from "../api/client";
import { useConnection } from "../api/connection";
import { usePerson } from "../api/person";
import { useHabits } from "../open/habits";
import { beginProject, endProject } from "../open/perProject";
import { useSession } from "../open/session";
import { KeptChoice } from "./KeptChoice";
import { KeptText } from "./KeptText";
import { LengthInput } from "./LengthInput";
import { NameField } from "./NameField";

const keep = vi.fn();
beforeEach(() => {
  keep.mockClear();
  sessionStorage.clear();
  endProject();
  useHabits.setState({ units: "m" });
});
afterEach(cleanup);

const field = (name: string | RegExp) => screen.getByRole("textbox", { name });
/** What was kept, without what it was typed over. */
const kept = () => keep.mock.calls.map(([text]) => text);
const notice = () => useSession.getState().notice;

test("a text is kept once, when its field is left, and without the space around it", async () => {
  const { rerender } = render(
    <KeptText field="Title of AIR 001" label="Title" of="AIR 001" value="Duct" keep={keep} />,
  );
  await userEvent.type(field("Title of AIR 001"), " in the beam  ");
  expect(keep).not.toHaveBeenCalled();
  await userEvent.tab();
  expect(kept()).toEqual(["Duct in the beam"]);
  rerender(
    <KeptText field="Title of AIR 001" label="Title" of="AIR 001" value="Duct in the beam" keep={keep} />,
  );
  await userEvent.click(field("Title of AIR 001"));
  await userEvent.tab();
  expect(keep).toHaveBeenCalledTimes(1);
});

test("Enter keeps a line, and is a new line in a text", async () => {
  render(
    <KeptText
      field="Description of AIR 001"
      label="Description"
      of="AIR 001"
      value=""
      rows={3}
      keep={keep}
    />,
  );
  await userEvent.type(field("Description of AIR 001"), "one{Enter}two");
  expect(keep).not.toHaveBeenCalled();
  await userEvent.tab();
  expect(kept()).toEqual(["one\ntwo"]);
  cleanup();
  keep.mockClear();
  render(<KeptText field="Title of AIR 001" label="Title" of="AIR 001" value="" keep={keep} />);
  await userEvent.type(field("Title of AIR 001"), "one{Enter}");
  expect(kept()).toEqual(["one"]);
});

test("what is typed stays while somebody else changes the text, and who leaves the field is told and can take theirs", async () => {
  const { rerender } = render(
    <KeptText field="Title of AIR 001" label="Title" of="AIR 001" value="Duct" keep={keep} />,
  );
  await userEvent.clear(field("Title of AIR 001"));
  await userEvent.type(field("Title of AIR 001"), "Mine");
  rerender(<KeptText field="Title of AIR 001" label="Title" of="AIR 001" value="Theirs" keep={keep} />);
  expect(field("Title of AIR 001")).toHaveProperty("value", "Mine");
  expect(notice()).toBeNull();
  await userEvent.tab();
  expect(kept()).toEqual(["Mine"]);
  expect(notice()?.text).toContain("Someone changed the title to “Theirs”");
  notice()?.undo?.();
  expect(keep.mock.calls.at(-1)).toEqual(["Theirs", "Mine"]);
});

test("what others wrote is shown where nothing is being typed", () => {
  const { rerender } = render(
    <KeptText field="Title of AIR 001" label="Title" of="AIR 001" value="Duct" keep={keep} />,
  );
  rerender(<KeptText field="Title of AIR 001" label="Title" of="AIR 001" value="Theirs" keep={keep} />);
  expect(field("Title of AIR 001")).toHaveProperty("value", "Theirs");
});

test("what could not be saved while the server was away says so and is saved when it is back", async () => {
  let away = true;
  keep.mockImplementation(async () => {
    if (away) useSession.getState().say(AWAY);
    return !away;
  });
  useConnection.setState({ away });
  render(<KeptText field="title of topic 1" label="Title" of="AIR 001" value="Duct" keep={keep} />);
  await userEvent.type(field("Title of AIR 001"), " in the beam");
  expect(screen.getByTestId("saved-mark").textContent).toBe("not saved yet");
  await userEvent.tab();
  expect(screen.getByRole("alert").textContent).toBe("waits for the connection");
  // Nobody is asked to do it again: the field says what becomes of it.
  expect(useSession.getState().notice).toBeNull();
  // Also where the field is no longer on the page.
  cleanup();
  away = false;
  useConnection.setState({ away, back: useConnection.getState().back + 1 });
  await vi.waitFor(() => expect(kept()).toEqual(["Duct in the beam", "Duct in the beam"]));
  render(
    <KeptText field="title of topic 1" label="Title" of="AIR 001" value="Duct in the beam" keep={keep} />,
  );
  expect(screen.queryByTestId("saved-mark")).toBeNull();
  keep.mockReset();
});

test("what is refused stays typed and is not sent again by itself", async () => {
  keep.mockImplementation(async () => false);
  useConnection.setState({ away: false });
  render(<KeptText field="title of topic 1" label="Title" of="AIR 001" value="Duct" keep={keep} />);
  await userEvent.type(field("Title of AIR 001"), "s");
  await userEvent.tab();
  expect(screen.getByRole("alert").textContent).toBe("not saved");
  expect(field("Title of AIR 001")).toHaveProperty("value", "Ducts");
  useConnection.setState({ back: useConnection.getState().back + 1 });
  expect(keep).toHaveBeenCalledTimes(1);
  keep.mockReset();
});

test("what is half typed outlives a reload, in its own project", async () => {
  const shown = () =>
    render(<KeptText field="title of topic 1" label="Title" of="AIR 001" value="Duct" keep={keep} />);
  beginProject("one");
  shown();
  await userEvent.type(field("Title of AIR 001"), " in");
  // A reload takes everything but what the tab keeps.
  cleanup();
  endProject();
  beginProject("another");
  shown();
  expect(field("Title of AIR 001")).toHaveProperty("value", "Duct");
  cleanup();
  endProject();
  beginProject("one");
  shown();
  expect(field("Title of AIR 001")).toHaveProperty("value", "Duct in");
  expect(screen.getByTestId("saved-mark").textContent).toBe("not saved yet");
});

test("who saved first is told by whom and to what it was changed, and can take theirs back", async () => {
  usePerson.setState({ name: "Ida Fenn" });
  const titled = (value: string, by: string) => (
    <KeptText field="title of topic 1" label="Title" of="AIR 001" value={value} by={by} keep={keep} />
  );
  const { rerender } = render(titled("Duct", "Otis Brand"));
  await userEvent.clear(field("Title of AIR 001"));
  await userEvent.type(field("Title of AIR 001"), "Mine");
  await userEvent.tab();
  rerender(titled("Mine", "Ida Fenn"));
  expect(screen.getByTestId("saved-mark").textContent).toBe("saved");
  expect(notice()).toBeNull();
  rerender(titled("Theirs", "Otis Brand"));
  expect(notice()?.text).toBe("Otis Brand changed the title to “Theirs” after you saved “Mine”.");
  expect(notice()?.called).toBe("Take mine");
  notice()?.undo?.();
  expect(kept()).toEqual(["Mine", "Mine"]);
});

test("a name that was emptied is as it was", async () => {
  render(<NameField field="name" label="Name" about="Name of the view" value="Roof" keep={keep} />);
  await userEvent.clear(field("Name of the view"));
  await userEvent.tab();
  expect(keep).not.toHaveBeenCalled();
  expect(field("Name of the view")).toHaveProperty("value", "Roof");
});

test.each([
  ["1.2", 1.2],
  ["1200 mm", 1.2],
  ["4'", 1.2192],
])("a length is typed in any unit: %s", async (typed, metres) => {
  render(<LengthInput label="Eye height" value={1.6} keep={keep} />);
  await userEvent.clear(field(/Eye height/));
  await userEvent.type(field(/Eye height/), `${typed}{Enter}`);
  expect(keep.mock.calls[0]?.[0]).toBeCloseTo(metres, 9);
});

test.each([
  ["high", /^high is not a length/],
  ["-5", /between 0\.50 m and 3 m/],
  ["3.01", /between 0\.50 m and 3 m/],
])("%s is refused in a sentence, and the field is as it was", async (typed, said) => {
  render(<LengthInput label="Eye height" value={1.6} least={0.5} most={3} keep={keep} />);
  await userEvent.clear(field(/Eye height/));
  await userEvent.type(field(/Eye height/), `${typed}{Enter}`);
  expect(keep).not.toHaveBeenCalled();
  expect(notice()?.text).toMatch(said);
  expect(field(/Eye height/)).toHaveProperty("value", "1.6");
});

test("Escape gives up what was typed, and an emptied field keeps none only where there may be none", async () => {
  const { rerender } = render(<LengthInput label="Depth" value={2} keep={keep} />);
  await userEvent.clear(field(/Depth/));
  await userEvent.type(field(/Depth/), "7{Escape}");
  fireEvent.blur(field(/Depth/));
  expect(keep).not.toHaveBeenCalled();
  rerender(<LengthInput label="Depth" value={2} placeholder="none" keep={keep} />);
  await userEvent.clear(field(/Depth/));
  fireEvent.blur(field(/Depth/));
  expect(keep.mock.calls).toEqual([[null]]);
});

test("a choice is kept at once and says so; a second one made before the first is kept is kept too", async () => {
  let answer = (_: boolean) => {};
  keep.mockImplementation(() => new Promise<boolean>((resolve) => (answer = resolve)));
  const choice = (value: string) => (
    <KeptChoice
      field="Status of AIR 001"
      label="Status"
      of="AIR 001"
      value={value}
      choices={["in hand", "settled"]}
      keep={keep}
    />
  );
  const { rerender } = render(choice("open"));
  const select = screen.getByRole("combobox", { name: "Status of AIR 001" });
  await userEvent.selectOptions(select, "in hand");
  expect(screen.getByTestId("saved-mark").textContent).toBe("saving…");
  await userEvent.selectOptions(select, "settled");
  expect(kept()).toEqual(["in hand", "settled"]);
  expect(select).toHaveProperty("value", "settled");
  answer(true);
  expect((await screen.findByText("saved")).textContent).toBe("saved");
  rerender(choice("settled"));
  expect(select).toHaveProperty("value", "settled");
  keep.mockReset();
});
