"""A random stranger: Cuts the interface by chance, and looks after each action whether all is as it must be."""

from __future__ import annotations

import random
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager, suppress
from dataclasses import dataclass, field
from typing import Any, Literal

from playwright.sync_api import ConsoleMessage, Error, Page, Response, TimeoutError

from tests.e2e.stage import wait_drawn

KEYS = (
    "e", "x", "o", "r", "l", "p", "Shift+P", "c", "y", "Shift+Y", "Shift+C", "Control+z", "Control+y", "[", "]", "Home",
    "Shift+Home", "ArrowLeft", "ArrowRight", "ArrowUp", "ArrowDown", "PageUp", "PageDown", "Escape", "Enter", "m", "f", "h",
    "b", "z", "i", "Shift+I", "j", "n", "q", "k", "w", "s", "/", "?", "Tab", "Shift+L", ",", ".",
)  # fmt: skip
TYPED = ("fit all", "room", "duct", "wall", "look from", "background", "zzz", "home", "square", "lens", "-1", "1e9", "")
SIZES = ((1080, 680), (900, 600), (1280, 800), (1024, 700))
NOT_PRESSED = ("change the name", "read again", "remove", "choose files", "cancel", "link", "delete", "full screen")
"""Words, in small letters, of buttons that change what all tests share, or leave the page."""

IN_HAND = "() => window.stairpath.open.tool()"
CUTS = "() => { const { cuts } = window.stairpath.open.seen(); return cuts.length ? JSON.stringify(cuts) : ''; }"
RULES = "() => JSON.stringify(window.stairpath.open.seen().rules)"

CONTROLS = """() => [...document.querySelectorAll('button, [role=tab], select, input')].filter((e) => {
  const box = e.getBoundingClientRect();
  return box.width && box.height && !e.disabled && getComputedStyle(e).visibility !== 'hidden';
}).map((e) => ({ name: e.getAttribute('aria-label') || e.textContent || e.type, tag: e.tagName }))"""
OUTSIDE = """() => {
  const scrolls = (e) => { for (let p = e.parentElement; p; p = p.parentElement)
    if (/auto|scroll/.test(getComputedStyle(p).overflow + getComputedStyle(p).overflowX)) return true; return false; };
  return [...document.querySelectorAll('button, [role=tab], select, input:not([type=file])')].filter((e) => {
    const box = e.getBoundingClientRect();
    if (!box.width || !box.height || scrolls(e)) return false;
    return box.left < -1 || box.top < -1 || box.right > innerWidth + 1 || box.bottom > innerHeight + 1;
  }).map((e) => e.getAttribute('aria-label') || e.textContent);
}"""
WIDE = """() => {
  if ([document.documentElement, document.body, document.getElementById('root')].every(
    (e) => e.scrollWidth <= innerWidth + 1 && e.scrollHeight <= innerHeight + 1)) return '';
  return [...document.querySelectorAll('body *')].map((e) => [e, e.getBoundingClientRect()])
    .filter(([, r]) => r.right > innerWidth + 1 || r.bottom > innerHeight + 1)
    .map(([e, r]) => `${e.tagName} ${e.getAttribute('aria-label') ?? e.textContent.slice(0, 30)} to ${r.right | 0},${r.bottom | 0}`)
    .slice(0, 6).join('; ') || 'by itself'; }"""
SETTLED = """() => { const o = window.stairpath.open, c = document.querySelector('canvas');
  return o && c && window.stairpath.stage && !o.seen().asking && c.dataset.pending === '0'; }"""
SHOWN = """async () => {
  const seen = window.stairpath.open.seen(), stage = window.stairpath.stage.building.states;
  const drawn = Array.from({ length: stage.count }, (_, i) => [0, 128, 255].indexOf(stage.texture.image.data[i * 4]));
  const answer = await fetch(`/api/projects/${seen.federation.id}/resolve`, { method: 'POST',
    headers: { 'Content-Type': 'application/json' }, body: JSON.stringify({ rules: seen.rules }) }).then((r) => r.arrayBuffer());
  const begin = 8 + new DataView(answer).getUint32(4, true);
  const { at, count } = JSON.parse(new TextDecoder().decode(answer.slice(8, begin))).find((e) => e.name === 'states');
  const core = Array.from(new Uint8Array(answer, begin + at, count));
  return { drawn, core };
}"""
NEIGHBOURS = """() => window.stairpath.open.trail().places.some((p, i, all) => {
  const q = all[i + 1]; return q && JSON.stringify(p.view.eye) === JSON.stringify(q.view.eye); })"""
STOREY = """() => {
  const list = document.querySelector('[aria-label="Storey of the key plan"]');
  const text = list?.selectedOptions[0]?.textContent ?? '';
  if (!text.endsWith(', follows the eye')) return null;
  const eye = JSON.parse(document.querySelector('canvas').dataset.pose).eye_m;
  const name = window.stairpath.open.followed(eye);
  return text === `${name}, follows the eye` ? null : `${text} where the eye is on ${name}`; }"""
FOCUS_GONE = """() => { const e = document.activeElement;
  return !e || (e !== document.body && (!e.isConnected || e.getBoundingClientRect().width === 0 && e.tagName !== 'INPUT')); }"""


class WrongError(AssertionError):
    """Something is not as it must be; ``kind`` says what, without where."""

    def __init__(self, text: str, kind: str = "") -> None:
        super().__init__(text)
        self.kind = kind


@dataclass
class Roamer:
    """One stranger on one page; every action is drawn from the seed and can be done again."""

    page: Page
    seed: int
    done: list[str] = field(default_factory=list)
    wrong: list[str] = field(default_factory=list)
    away: bool = False
    """Whether the server was out of reach, which the browser writes into the console."""

    @contextmanager
    def listening(self) -> Iterator[None]:
        """Note script errors, errors in the console, and answers of 500 and more."""

        def console(message: ConsoleMessage) -> None:
            # A refusal (4xx) is an answer; the browser writes each of them into the console.
            away = self.away and "net::ERR_" in message.text
            if message.type == "error" and "status of 4" not in message.text and not away:
                self.wrong.append(f"console: {message.text}")

        def failed(error: Error) -> None:
            self.wrong.append(f"script: {error}")

        def answered(response: Response) -> None:
            if response.status >= 500:
                self.wrong.append(f"{response.status} from {response.request.method} {response.url}")

        self.page.on("console", console)
        self.page.on("pageerror", failed)
        self.page.on("response", answered)
        try:
            yield
        finally:
            self.page.remove_listener("console", console)
            self.page.remove_listener("pageerror", failed)
            self.page.remove_listener("response", answered)

    def act(self, step: int) -> None:
        """Do the action that the seed has for a step."""
        chance = random.Random(f"{self.seed}/{step}")
        what: Callable[[random.Random], str] = chance.choices(
            (
                self._key,
                self._button,
                self._point,
                self._drag,
                self._wheel,
                self._type,
                self._resize,
                self._reload,
                self._tool_over_a_tab,
                self._typing_with_a_tool,
                self._offline,
                self._resize_in_a_drag,
            ),
            (10, 10, 5, 4, 4, 2, 1, 0.5, 1.5, 1.5, 0.7, 0.7),
        )[0]
        self.done.append(what(chance))

    def _key(self, chance: random.Random) -> str:
        key = chance.choice(KEYS)
        self.page.keyboard.press(key)
        return f"key {key}"

    def _button(self, chance: random.Random) -> str:
        controls: list[dict[str, str]] = self.page.evaluate(CONTROLS)
        fit = [c for c in controls if c["tag"] == "BUTTON" and not any(n in c["name"].lower() for n in NOT_PRESSED)]
        if not fit:
            return "no button"
        name = chance.choice(fit)["name"]
        try:
            self.page.get_by_role("button", name=name, exact=True).first.click(timeout=1500, no_wait_after=True)
        except TimeoutError:
            return f"button {name} (behind something)"
        return f"button {name}"

    def _at(self, chance: random.Random) -> tuple[float, float]:
        box = self.page.locator("canvas").bounding_box()
        assert box
        return box["x"] + chance.random() * box["width"], box["y"] + chance.random() * box["height"]

    def _point(self, chance: random.Random) -> str:
        x, y = self._at(chance)
        self.page.mouse.click(x, y, button=chance.choice(("left", "left", "left", "right")))
        return f"click {x:.0f},{y:.0f}"

    def _drag(self, chance: random.Random) -> str:
        (x, y), (to_x, to_y) = self._at(chance), self._at(chance)
        button: Any = chance.choice(("left", "left", "right", "middle"))
        self.page.mouse.move(x, y)
        self.page.mouse.down(button=button)
        self.page.mouse.move(to_x, to_y, steps=3)
        self.page.mouse.up(button=button)
        return f"{button} drag {x:.0f},{y:.0f} to {to_x:.0f},{to_y:.0f}"

    def _wheel(self, chance: random.Random) -> str:
        x, y = self._at(chance)
        by = chance.choice((-600, -200, 200, 600))
        self.page.mouse.move(x, y)
        self.page.mouse.wheel(0, by)
        return f"wheel {by} at {x:.0f},{y:.0f}"

    def _type(self, chance: random.Random) -> str:
        text = chance.choice(TYPED)
        self.page.keyboard.press("/")
        self.page.keyboard.type(text)
        key = chance.choice(("Enter", "Escape"))
        self.page.keyboard.press(key)
        return f"/{text} {key}"

    def _resize(self, chance: random.Random) -> str:
        width, height = chance.choice(SIZES)
        self.page.set_viewport_size({"width": width, "height": height})
        return f"window {width}x{height}"

    def _reload(self, chance: random.Random) -> str:
        self.page.reload()
        wait_drawn(self.page)
        return "reload"

    def _press(self, role: Literal["tab", "button"], name: str) -> None:
        """Press what may be behind something."""
        with suppress(TimeoutError):
            self.page.get_by_role(role, name=name, exact=True).first.click(timeout=1500)

    def _in_hand(self, chance: random.Random) -> str:
        """Take a tool in hand from its desk; its name, empty where none could be taken."""
        self.page.keyboard.press("Escape")
        desk, ways = chance.choice((("Markups", "markup-ways"), ("Measures", "measure-ways")))
        try:
            self.page.get_by_role("tab", name=desk).click(timeout=1500)
            buttons = self.page.get_by_test_id(ways).get_by_role("button")
            buttons.nth(chance.randrange(max(1, buttons.count()))).click(timeout=1500)
        except TimeoutError:
            return ""
        return str(self.page.evaluate(IN_HAND) or "")

    def _tool_over_a_tab(self, chance: random.Random) -> str:
        """Drag from a cut's tab with another tool in hand: the cut stays."""
        self.page.keyboard.press("Escape")
        if not self.page.evaluate(CUTS):
            self._press("tab", "Cuts")
            self._press("button", "Cut")
        tool, before = self._in_hand(chance), self.page.evaluate(CUTS)
        tab = self.page.get_by_test_id("cut-tab").first
        box = tab.bounding_box() if tab.count() and tab.is_visible() else None
        if not tool or not box:
            return "no tool in hand, or no tab"
        x, y = box["x"] + 22, box["y"] + box["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + 30, y - 40, steps=3)
        self.page.mouse.up()
        if self.page.evaluate(CUTS) != before:
            self.wrong.append(f"a cut moved: with {tool} in hand")
        return f"{tool} dragged from a cut's tab"

    def _typing_with_a_tool(self, chance: random.Random) -> str:
        """Type with a tool in hand that takes words, once it was clicked: no letter hides anything or moves the eye."""
        tool = self._in_hand(chance)
        if not tool:
            return "no tool in hand"
        x, y = self._at(chance)
        self.page.mouse.click(x, y)
        before = self.page.evaluate(RULES)
        self.page.keyboard.type(chance.choice(("hide x", "zoom h", "x", "shown")))
        if self.page.evaluate(RULES) != before:
            self.wrong.append(f"letters hid something: with {tool} in hand")
        self.page.keyboard.press("Escape")
        self.page.keyboard.press("Escape")
        return f"typed with {tool} in hand"

    def _offline(self, chance: random.Random) -> str:
        """Type a name while the server cannot be reached; it is still there when it is back."""
        self.page.keyboard.press("Escape")
        self._press("tab", "Viewpoints")
        name = self.page.get_by_label("Name of the viewpoint")
        if not name.count():
            return "no field to type in"
        self.page.context.set_offline(True)
        self.away = True
        try:
            name.fill("Half a na")
            x, y = self._at(chance)
            self.page.mouse.move(x, y)
            self.page.mouse.wheel(0, -200)
        finally:
            self.page.context.set_offline(False)
        if name.count() and name.input_value() != "Half a na":
            self.wrong.append("what was typed is lost: the server was away")
        name.fill("")
        return "offline and back while typing"

    def _resize_in_a_drag(self, chance: random.Random) -> str:
        """Give the window another size while a button of the mouse is down."""
        (x, y), (width, height) = self._at(chance), chance.choice(SIZES)
        button: Any = chance.choice(("left", "right"))
        self.page.mouse.move(x, y)
        self.page.mouse.down(button=button)
        self.page.mouse.move(x + 20, y + 10, steps=2)
        self.page.set_viewport_size({"width": width, "height": height})
        self.page.mouse.move(x + 40, y + 20, steps=2)
        self.page.mouse.up(button=button)
        return f"window {width}x{height} in a {button} drag"

    def check(self) -> None:
        """Raise WrongError with what was done where something is not as it must be."""
        self.page.wait_for_function(SETTLED, timeout=60_000)
        shown = self.page.evaluate(SHOWN)
        if shown["drawn"] != shown["core"]:
            self.wrong.append("what the stage shows is not what the core resolves")
        outside = self.page.evaluate(OUTSIDE)
        if outside:
            self.wrong.append(f"outside the window: {outside}")
        if self.page.evaluate(WIDE):
            # What has just been laid out anew by the page's own sizes has a moment to fit.
            self.page.wait_for_timeout(500)
            wide = self.page.evaluate(WIDE)
            if wide:
                self.wrong.append(f"the page is larger than the window: {wide}")
        if self.page.evaluate(NEIGHBOURS):
            self.wrong.append("two neighbours of the Trail are the same")
        storey = self.page.evaluate(STOREY)
        if storey:
            self.wrong.append(f"the key plan shows {storey}")
        if self.page.evaluate(FOCUS_GONE):
            self.wrong.append("the focus is in something that is gone")
        if self.wrong:
            kind = self.wrong[0].partition(":")[0]
            raise WrongError(f"seed {self.seed}: {'; '.join(self.wrong)} after {self.done[-12:]}", kind)

    def point_and_pick(self, step: int) -> None:
        """What is named under the cursor is what a click picks, where no tool is in hand."""
        x, y = self._at(random.Random(f"{self.seed}/{step}/pick"))
        plain = "() => !window.stairpath.open.tool() && window.stairpath.open.mode() === 'orbit'"
        front = "([x, y]) => document.elementFromPoint(x, y) === document.querySelector('canvas')"
        if not self.page.evaluate(plain) or not self.page.evaluate(front, [x, y]):
            return
        # While the view still glides the next frame has something else there.
        self.page.wait_for_function("() => document.querySelector('canvas').dataset.rest === 'yes'", timeout=60_000)
        self.page.mouse.move(x - 1, y)
        self.page.mouse.move(x, y)
        named = self.page.evaluate("() => window.stairpath.open.hovered()")
        self.page.mouse.click(x, y)
        self.done.append(f"pick {x:.0f},{y:.0f}")
        picked = self.page.evaluate("() => window.stairpath.open.picked()")
        if picked != ([named] if named >= 0 else []):
            self.wrong.append(f"{named} was under the cursor, and {picked} was picked")

    def undo_all(self) -> None:
        """Undo everything; it must be Start."""
        for _ in range(3):
            self.page.keyboard.press("Escape")
        self.page.evaluate("() => document.activeElement?.blur?.()")
        self.page.evaluate("() => window.stairpath.open.seen().goTo(0)")
        self.check()
        begun = self.page.evaluate("() => window.stairpath.open.seen().history.at === 0")
        rules = self.page.evaluate("() => window.stairpath.open.seen().rules.length")
        if not begun or rules:
            raise WrongError(f"seed {self.seed}: undoing everything left {rules} rules")


def roam(page: Page, address: str, seed: int, steps: Sequence[int]) -> list[str]:
    """Do the actions of some steps on a project, checking after each; returns what was done."""
    stranger = Roamer(page, seed)
    with stranger.listening():
        page.goto(address)
        wait_drawn(page)
        for step in steps:
            stranger.act(step)
            stranger.check()
            if step % 4 == 0:
                stranger.point_and_pick(step)
        stranger.undo_all()
    return stranger.done


def shrunk(fails: Callable[[Sequence[int]], bool], steps: Sequence[int], tries: int) -> Sequence[int]:
    """A shorter list of steps that still fails, by leaving out ever smaller parts of it."""
    size = len(steps) // 2
    while size and tries > 0:
        at = 0
        while at < len(steps) and tries > 0:
            fewer = [*steps[:at], *steps[at + size :]]
            tries -= 1
            if fewer and fails(fewer):
                steps = fewer
            else:
                at += size
        size //= 2
    return steps
