"""Rules of what is shown, faded, hidden and tinted; later ones count over earlier ones.

``resolve`` gives all components at once a state, a tint, and the rule that decided.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, Literal

import numpy as np
import numpy.typing as npt
from annotated_types import MaxLen

from stairpath.core.limits import Moment, Person, Sentence
from stairpath.core.visibility.conditions import all_met
from stairpath.core.visibility.selectors import All, AllBut, Either, Of, Selector, These, Where, covers
from stairpath.core.visibility.traits import Mask, Traits

Effect = Literal["show", "fade", "hide", "only", "fade_rest", "tint"]

HIDDEN, FADED, SHOWN = 0, 1, 2
STATES: tuple[Literal["hidden", "faded", "shown"], ...] = ("hidden", "faded", "shown")
NO_RULE = -1
"""No rule is about the component."""
NOT_STANDING = -2
"""Its model is an alternative that does not stand; no rule shows it."""
NO_TINT = -1
BY_MATERIALS = -2
"""Tinted by the colours that the file gives to surfaces and materials."""
MATERIALS = "materials"
_STATE = {"show": SHOWN, "fade": FADED, "hide": HIDDEN, "only": SHOWN, "fade_rest": SHOWN}


@dataclass(frozen=True)
class Rule:
    """What is to be done with what is selected; by whom, when (ISO 8601) and why.

    ``only`` shows its selection and hides all else; ``fade_rest`` shows its selection and fades what else is shown,
    so that what is hidden stays so; ``tint`` colours it: in ``#rrggbb``, in the file's own colours (``materials``), or without a colour in its discipline's again.
    One that is ``off`` waits and changes nothing.
    """

    select: Selector
    effect: Effect
    colour: str | None = None
    by: Person = ""
    at: Moment = ""
    why: Sentence = ""
    off: bool = False

    def __post_init__(self) -> None:
        if self.colour is not None:
            colour_value(self.colour)


Rules = Annotated[tuple[Rule, ...], MaxLen(500)]


@dataclass(frozen=True, eq=False)
class Resolved:
    """How every component (n,) appears.

    ``state`` is HIDDEN, FADED or SHOWN; ``rule`` the place of the rule that decided it, NO_RULE or NOT_STANDING;
    ``tint`` 0xRRGGBB, BY_MATERIALS or NO_TINT; ``tint_rule`` the place of the rule that tinted, or NO_RULE.
    ``selects`` says of how many components each rule (m,) speaks, off or not.
    """

    state: npt.NDArray[np.uint8]
    rule: npt.NDArray[np.int16]
    tint: npt.NDArray[np.int32]
    tint_rule: npt.NDArray[np.int16]
    selects: npt.NDArray[np.int32]

    def counts(self) -> dict[str, int]:
        """How many are shown, faded and hidden."""
        per_state = np.bincount(self.state, minlength=3)
        return {name: int(per_state[k]) for k, name in enumerate(STATES)}

    def reason(self) -> npt.NDArray[np.int16]:
        """The rule that is the reason for how each appears: that of its state, else that of its tint."""
        return np.where(self.rule == NO_RULE, self.tint_rule, self.rule)


def selected(traits: Traits, selector: Selector) -> Mask:
    """Which components (n,) a selector selects; what it names and the building has not selects nothing."""
    if isinstance(selector, All):
        return np.ones(traits.count, dtype=bool)
    if isinstance(selector, Of):
        return traits.columns[selector.what].having(selector.value)
    if isinstance(selector, AllBut):
        return ~selected(traits, selector.of)
    if isinstance(selector, These):
        out = np.zeros(traits.count, dtype=bool)
        for key, ids in selector.of.items():
            out[traits.numbers_of(key, ids)] = True
        return out
    if isinstance(selector, Where):
        return all_met(selector.of, traits)
    parts = [selected(traits, part) for part in selector.of]
    if not parts:
        return np.zeros(traits.count, dtype=bool)
    joined: Mask = np.logical_or.reduce(parts) if isinstance(selector, Either) else np.logical_and.reduce(parts)
    return joined


def these(traits: Traits, mask: Mask) -> These:
    """A selector that names components one by one."""
    found: dict[str, list[str]] = {}
    for number in np.flatnonzero(mask).tolist():
        found.setdefault(traits.model_of(number), []).append(traits.global_id(number))
    return These({key: tuple(ids) for key, ids in found.items()})


def colour_value(colour: str) -> int:
    """``#rrggbb`` as a number, or BY_MATERIALS for ``materials``.

    Raises ValueError with a sentence for anything else.
    """
    if colour == MATERIALS:
        return BY_MATERIALS
    digits = colour.removeprefix("#")
    if len(digits) != 6 or colour == digits or any(c not in "0123456789abcdefABCDEF" for c in digits):
        raise ValueError(f"{colour} is not a colour; give one such as #3f83c2, or {MATERIALS}.")
    return int(digits, 16)


def colour_text(value: int) -> str | None:
    """A number as ``#rrggbb`` or ``materials``; None for NO_TINT."""
    if value == BY_MATERIALS:
        return MATERIALS
    return None if value == NO_TINT else f"#{value:06x}"


def resolve(traits: Traits, rules: Sequence[Rule]) -> Resolved:
    """How every component appears under rules, later ones over earlier ones."""
    n = traits.count
    state = np.full(n, SHOWN, dtype=np.uint8)
    rule = np.full(n, NO_RULE, dtype=np.int16)
    tint = np.full(n, NO_TINT, dtype=np.int32)
    tint_rule = np.full(n, NO_RULE, dtype=np.int16)
    selects = np.zeros(len(rules), dtype=np.int32)
    for place, each in enumerate(rules):
        mask = selected(traits, each.select)
        selects[place] = np.count_nonzero(mask)
        if each.off:
            continue
        if each.effect == "tint":
            np.copyto(tint, NO_TINT if each.colour is None else colour_value(each.colour), where=mask)
            np.copyto(tint_rule, NO_RULE if each.colour is None else place, where=mask)
            continue
        if each.effect == "only":
            state[:] = HIDDEN
            rule[:] = place
        elif each.effect == "fade_rest":
            shown = state == SHOWN
            np.copyto(rule, place, where=shown)
            np.copyto(state, FADED, where=shown)
        np.copyto(state, _STATE[each.effect], where=mask)
        np.copyto(rule, place, where=mask)
    away = ~traits.stands
    state[away], rule[away], tint[away], tint_rule[away] = HIDDEN, NOT_STANDING, NO_TINT, NO_RULE
    return Resolved(state, rule, tint, tint_rule, selects)


def _outdone(earlier: Rule, later: Rule) -> bool:
    """Whether a later rule leaves nothing of an earlier one."""
    if later.off or (earlier.effect == "tint") != (later.effect == "tint"):
        return False
    if later.effect == "only" or (later.effect != "fade_rest" and isinstance(later.select, All)):
        return True
    if later.effect == "fade_rest" or earlier.effect in ("only", "fade_rest"):
        return False
    return covers(later.select, earlier.select)


def simplified(rules: Sequence[Rule]) -> tuple[Rule, ...]:
    """The same wish without the rules that later ones leave nothing of, and without those that change nothing."""
    return tuple(rules[place] for place in places_kept(rules))


def places_kept(rules: Sequence[Rule]) -> list[int]:
    """The places of the rules that ``simplified`` keeps."""
    kept = [i for i, r in enumerate(rules) if not any(_outdone(r, later) for later in rules[i + 1 :])]
    out: list[int] = []
    shaped = tinted = False
    for place in kept:
        rule = rules[place]
        if rule.effect == "tint":
            if rule.colour is None and not tinted:
                continue
            tinted = True
        else:
            if rule.effect == "show" and not shaped:
                continue
            shaped = True
        out.append(place)
    return out
