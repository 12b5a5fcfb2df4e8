"""Rules in plain words: what is hidden, of what, and what a change did, as one says it aloud."""

from __future__ import annotations

import re

import numpy as np

from stairpath.core.visibility.condition import spoken as said
from stairpath.core.visibility.rules import MATERIALS, Effect, Rule, selected
from stairpath.core.visibility.selectors import All, AllBut, Either, Of, Selector, These, Where
from stairpath.core.visibility.traits import CASES, USUAL, Mask, Traits

_MOST_NAMED = 2
_DONE: dict[Effect, str] = {
    "show": "showed",
    "fade": "faded",
    "hide": "hid",
    "only": "isolated",
    "fade_rest": "faded all but",
    "tint": "tinted",
}
_IS: dict[Effect, str] = {
    "show": "Shown",
    "fade": "Faded",
    "hide": "Hidden",
    "only": "Only this",
    "fade_rest": "Faded: all but",
    "tint": "Tinted",
}


def counted(count: int, one: str) -> str:
    """A number and what it counts: ``1 wall``, ``14 coverings``."""
    if count == 1:
        return f"1 {one}"
    many = (
        one[:-1] + "ies" if re.search(r"[^aeiou]y$", one) else one + ("es" if re.search(r"(s|x|ch|sh)$", one) else "s")
    )
    return f"{count} {many}"


def noun(ifc_class: str) -> str:
    """What people call a component of a class: ``flow segment`` for IfcFlowSegment.

    >>> noun("IfcWallStandardCase"), noun("IfcFlowSegment"), noun("IfcDuctSegment")
    ('wall', 'flow segment', 'duct')
    """
    plain = CASES.sub("", ifc_class.removeprefix("Ifc"))
    return USUAL.get(plain) or re.sub(r"(?<=[a-z])(?=[A-Z])", " ", plain).lower() or "component"


def class_name(ifc_class: str) -> str:
    """A class as it is read in lists and headings; empty for none.

    >>> class_name("IfcWallStandardCase"), class_name("IfcAirTerminal"), class_name("")
    ('Wall', 'Air terminal', '')
    """
    return noun(ifc_class).capitalize() if ifc_class else ""


def named(traits: Traits, mask: Mask) -> str:
    """Components (n,) in a few words: by name where they are few, else by number and class."""
    numbers = np.flatnonzero(mask)
    if not len(numbers):
        return "nothing in the building"
    if len(numbers) <= _MOST_NAMED:
        return " and ".join(traits.labels[k] for k in numbers.tolist())
    classes = traits.columns["class"]
    there = np.unique(classes.value[numbers])
    kinds = {noun(classes.values[int(k)]) for k in there}
    return counted(len(numbers), kinds.pop() if len(kinds) == 1 else "component")


def _of(traits: Traits, of: Of) -> str:
    column = traits.columns[of.what]
    meant = column.meant(of.value)
    value = column.spoken[meant[0]][-1 if of.what == "discipline" else 0] if len(meant) == 1 else of.value
    match of.what:
        case "level":
            return "no level" if not of.value else value if value.casefold().startswith("level") else f"level {value}"
        case "discipline":
            return value
        case "class":
            return f"every {noun(column.values[meant[0]] if meant else of.value)}"
        case "room":
            whole = column.values[meant[0]] if len(meant) == 1 else of.value
            return f"room {whole}" if of.value else "no room"
        case "global_id":
            return named(traits, selected(traits, of))
        case _:
            return f"{of.what} {value}" if of.value else f"no {of.what}"


def spoken(traits: Traits, select: Selector) -> str:
    """A selection in words; components one by one by their names or their number."""
    if isinstance(select, All):
        return "everything"
    if isinstance(select, Of):
        return _of(traits, select)
    if isinstance(select, These):
        return named(traits, selected(traits, select))
    if isinstance(select, Where):
        if select.called:
            return f"the set {select.called}"
        return f"all whose {' and '.join(map(said, select.of))}" if select.of else "everything"
    if isinstance(select, AllBut):
        return f"all but {spoken(traits, select.of)}"
    if isinstance(select, Either):
        return " and ".join(spoken(traits, part) for part in select.of) or "nothing"
    levels = [p for p in select.of if isinstance(p, Of) and p.what == "level"]
    rest = [p for p in select.of if p not in levels]
    what = " that is also ".join(spoken(traits, part) for part in rest) or "everything"
    return " ".join([what, *(f"on {spoken(traits, level)}" for level in levels)])


def done(traits: Traits, rule: Rule) -> str:
    """What making a rule did, as the name of a change: ``hid 14 coverings``."""
    if rule.effect == "tint" and rule.colour is None:
        return f"removed the tint of {spoken(traits, rule.select)}"
    if rule.colour == MATERIALS:
        return f"showed the materials' own colours of {spoken(traits, rule.select)}"
    if rule.effect in ("fade", "hide") and isinstance(rule.select, AllBut):
        return f"{_DONE[rule.effect]} all but {spoken(traits, rule.select.of)}"
    return f"{_DONE[rule.effect]} {spoken(traits, rule.select)}"


def stands(traits: Traits, rule: Rule) -> str:
    """What a rule says as long as it stands: ``Hidden: Air on level 01``."""
    if rule.colour == MATERIALS:
        return f"The materials' own colours: {spoken(traits, rule.select)}"
    between = " " if rule.effect == "fade_rest" else ": "
    return f"{_IS[rule.effect]}{between}{spoken(traits, rule.select)}"
