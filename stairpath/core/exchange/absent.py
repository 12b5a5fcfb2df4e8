"""What rules say of components that no model of the project has: a file that names them gets them back."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from stairpath.core.visibility.rules import Rule
from stairpath.core.visibility.selectors import All, AllBut, Both, Either, Selector, These
from stairpath.core.visibility.traits import Traits

_ANY_OTHER = ""
"""Stands for every component that is named nowhere."""


@dataclass(frozen=True)
class Absent:
    """GlobalIds of absent components by how they would appear, and how one would that no rule names."""

    hidden: tuple[str, ...]
    shown: tuple[str, ...]
    tints: dict[str, tuple[str, ...]]
    others_hidden: bool

    @property
    def some(self) -> bool:
        """Whether rules name any."""
        return bool(self.hidden or self.shown)


def _named(selector: Selector, traits: Traits) -> set[str]:
    if isinstance(selector, These):
        return {g for key, ids in selector.of.items() for g in ids if not traits.numbers_of(key, (g,))}
    if isinstance(selector, AllBut):
        return _named(selector.of, traits)
    if isinstance(selector, (Either, Both)):
        return set().union(*(_named(part, traits) for part in selector.of))
    return set()


def _selected(selector: Selector, ids: frozenset[str]) -> frozenset[str]:
    """Which of some absent components are selected: of those nothing is known but their names."""
    if isinstance(selector, All):
        return ids
    if isinstance(selector, AllBut):
        return ids - _selected(selector.of, ids)
    if isinstance(selector, These):
        return ids & {g for some in selector.of.values() for g in some}
    if isinstance(selector, Either):
        return frozenset[str]().union(*(_selected(part, ids) for part in selector.of))
    if isinstance(selector, Both) and selector.of:
        return ids.intersection(*(_selected(part, ids) for part in selector.of))
    return frozenset()


def absent(traits: Traits, rules: Sequence[Rule]) -> Absent:
    """How components appear that rules name and the project's models do not have, later rules over earlier ones."""
    active = [rule for rule in rules if not rule.off]
    names = sorted(set[str]().union(*(_named(rule.select, traits) for rule in active)))
    ids = frozenset([*names, _ANY_OTHER])
    hidden: frozenset[str] = frozenset()
    tint: dict[str, str | None] = {}
    for rule in active:
        these = _selected(rule.select, ids)
        if rule.effect == "tint":
            tint.update(dict.fromkeys(these, rule.colour))
        elif rule.effect == "only":
            hidden = ids - these
        elif rule.effect == "hide":
            hidden = hidden | these
        else:
            hidden = hidden - these
    colours = dict.fromkeys(colour for name in names if (colour := tint.get(name)) is not None)
    return Absent(
        hidden=tuple(name for name in names if name in hidden),
        shown=tuple(name for name in names if name not in hidden),
        tints={each: tuple(name for name in names if tint.get(name) == each) for each in colours},
        others_hidden=_ANY_OTHER in hidden,
    )
