// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { useHabits } from "../open/habits";
import { useSession } from "../open/session";
import { KeptText } from "./KeptText";
import { LengthInput } from "./LengthInput";
import { NameField } from "./NameField";

const keep = vi.fn();
beforeEach(() => {
  keep.mockClear();
  useSession.getState().hush();
  useHabits.setState({ units: "m" });
});
afterEach(cleanup);

const field = (name: string | RegExp) => screen.getByRole("textbox", { name });
const notice = () => useSession.getState().notice;

test("a text is kept once, when its field is left, and without the space around it", async () => {
  const { rerender } = render(<KeptText label="Title" of="AIR 001" value="Duct" keep={keep} />);
  await userEvent.type(field("Title of AIR 001"), " in the beam  ");
  expect(keep).not.toHaveBeenCalled();
  await userEvent.tab();
  expect(keep.mock.calls).toEqual([["Duct in the beam"]]);
  rerender(<KeptText label="Title" of="AIR 001" value="Duct in the beam" keep={keep} />);
  await userEvent.click(field("Title of AIR 001"));
  await userEvent.tab();
  expect(keep).toHaveBeenCalledTimes(1);
});

test("Enter keeps a line, and is a new line in a text", async () => {
  render(<KeptText label="Description" of="AIR 001" value="" rows={3} keep={keep} />);
  await userEvent.type(field("Description of AIR 001"), "one{Enter}two");
  expect(keep).not.toHaveBeenCalled();
  await userEvent.tab();
  expect(keep.mock.calls).toEqual([["one\ntwo"]]);
  cleanup();
  keep.mockClear();
  render(<KeptText label="Title" of="AIR 001" value="" keep={keep} />);
  await userEvent.type(field("Title of AIR 001"), "one{Enter}");
  expect(keep.mock.calls).toEqual([["one"]]);
});

test("what is typed stays while somebody else changes the text, and who leaves the field is told and can take theirs", async () => {
  const { rerender } = render(<KeptText label="Title" of="AIR 001" value="Duct" keep={keep} />);
  await userEvent.clear(field("Title of AIR 001"));
  await userEvent.type(field("Title of AIR 001"), "Mine");
  rerender(<KeptText label="Title" of="AIR 001" value="Theirs" keep={keep} />);
  expect(field("Title of AIR 001")).toHaveProperty("value", "Mine");
  expect(notice()).toBeNull();
  await userEvent.tab();
  expect(keep.mock.calls).toEqual([["Mine"]]);
  expect(notice()?.text).toContain("Someone changed the title to “Theirs”");
  notice()?.undo?.();
  expect(keep.mock.calls.at(-1)).toEqual(["Theirs"]);
});

test("what others wrote is shown where nothing is being typed", () => {
  const { rerender } = render(<KeptText label="Title" of="AIR 001" value="Duct" keep={keep} />);
  rerender(<KeptText label="Title" of="AIR 001" value="Theirs" keep={keep} />);
  expect(field("Title of AIR 001")).toHaveProperty("value", "Theirs");
});

test("a name that was emptied is as it was", async () => {
  render(<NameField label="Name" about="Name of the view" value="Roof" keep={keep} />);
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
