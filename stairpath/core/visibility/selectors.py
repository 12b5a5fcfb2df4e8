"""What a rule is about: components by what they are, where they are, or by name; joined, or all but those.

Selectors are plain values that say the same of another federation: a new issue of a model obeys them too.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import MaxLen

from stairpath.core.limits import BY_KIND, GlobalId, Key, Person, Sentence
from stairpath.core.visibility.attributes import WHATS, What
from stairpath.core.visibility.condition import Conditions

MOST_NESTED = 4
"""All but what either of all but some is: nobody means more, and comparing deeper ones takes for ever."""
MOST_NAMED = 200_000


@dataclass(frozen=True)
class All:
    """Every component."""

    kind: Literal["all"] = "all"


@dataclass(frozen=True)
class Of:
    """Components of a level, discipline, class ... by its name; nothing for those that have none."""

    what: What
    value: Sentence
    kind: Literal["of"] = "of"


@dataclass(frozen=True)
class These:
    """Components one by one: for each model's key their GlobalIds."""

    of: Annotated[Mapping[Key, Annotated[tuple[GlobalId, ...], MaxLen(MOST_NAMED)]], MaxLen(1000)]
    kind: Literal["these"] = "these"

    def __hash__(self) -> int:
        """Hash by models alone; there are few that are alike but for their components."""
        return hash(tuple(sorted(self.of)))


NONE = These({})


@dataclass(frozen=True)
class Where:
    """What meets every condition; ``called`` is the name of the set that it is, if it is one."""

    of: Conditions
    called: Person = ""
    kind: Literal["where"] = "where"


@dataclass(frozen=True)
class Either:
    """What any of the parts selects."""

    of: Terms
    kind: Literal["either"] = "either"

    def __post_init__(self) -> None:
        _check_nesting(self)


@dataclass(frozen=True)
class Both:
    """What all of the parts select."""

    of: Terms
    kind: Literal["both"] = "both"

    def __post_init__(self) -> None:
        _check_nesting(self)


@dataclass(frozen=True)
class AllBut:
    """What the part does not select."""

    of: Selector
    kind: Literal["all_but"] = "all_but"

    def __post_init__(self) -> None:
        _check_nesting(self)


Selector = Annotated[All | Of | These | Where | Either | Both | AllBut, BY_KIND]
Terms = Annotated[tuple[Selector, ...], MaxLen(1000)]


def _depth(of: Selector) -> int:
    if isinstance(of, AllBut):
        return 1 + _depth(of.of)
    if isinstance(of, Either | Both):
        return 1 + max((_depth(part) for part in of.of), default=0)
    return 1


def _check_nesting(of: Selector) -> None:
    if _depth(of) > MOST_NESTED:
        raise NotASelectorError(f"A selection is nested more than {MOST_NESTED} deep. Make sets of its parts.")


_TOKEN = re.compile(r'\s*(?:(?P<sign>[,+!])|(?P<word>(?:"[^"]*"|[^,+!"])+))')


class NotASelectorError(ValueError):
    """A text that says no selection; its message says what to write."""


def _term(text: str) -> Selector:
    word = text.strip()
    plain = word.replace('"', "")
    if plain.casefold() == "all":
        return All()
    what, colon, value = plain.partition(":")
    if not colon:
        return Of("global_id", plain)
    known = next((w for w in WHATS if w == what.strip().casefold()), None)
    if known is None or not value.strip():
        names = ", ".join(f"{w}:" for w in WHATS if w != "global_id")
        raise NotASelectorError(f"{word} selects nothing; write all, a GlobalId, or a name after one of {names}.")
    return Of(known, value.strip())


def parse(text: str) -> Selector:
    """A selection as it is typed: ``a,b`` is either, ``a+b`` both, ``!a`` all but; quotes keep those signs in a name.

    Raises NotASelectorError.

    >>> parse('level:01+!discipline:AIR')
    Both(of=(Of(what='level', value='01', kind='of'), AllBut(of=Of(what='discipline', value='AIR', kind='of'), \
kind='all_but')), kind='both')
    """
    either: list[Selector] = []
    both: list[Selector] = []
    negated, wanted = False, True
    at, text = 0, text.rstrip()
    if text.count('"') % 2:
        raise NotASelectorError(f"{text} has a quote that is not closed; close it.")
    while (match := _TOKEN.match(text, at)) is not None:
        at = match.end()
        sign = match["sign"]
        if sign is None and match["word"].strip():
            if not wanted:
                raise NotASelectorError(f"Something is missing before {match['word']}; put a comma or a plus there.")
            term = _term(match["word"])
            both.append(AllBut(term) if negated else term)
            negated = wanted = False
        elif sign == "!" and wanted:
            negated = not negated
        elif sign in (",", "+") and not wanted:
            if sign == ",":
                either.append(_joined(both))
                both = []
            wanted = True
        elif sign:
            raise NotASelectorError(f"{text} has a {sign} where a selection belongs; write one on both of its sides.")
    if wanted:
        raise NotASelectorError(f"{text or 'Nothing'} ends before it selects something; write all for everything.")
    either.append(_joined(both))
    return either[0] if len(either) == 1 else Either(tuple(either))


def _joined(parts: list[Selector]) -> Selector:
    return parts[0] if len(parts) == 1 else Both(tuple(parts))


def covers(wide: Selector, narrow: Selector) -> bool:
    """Whether one selects all that the other does, as far as that can be told without a building."""
    if isinstance(wide, All) or wide == narrow:
        return True
    if isinstance(narrow, Either):
        return all(covers(wide, part) for part in narrow.of)
    if isinstance(wide, Both) and wide.of:
        return all(covers(part, narrow) for part in wide.of)
    if isinstance(narrow, Both):
        return any(covers(wide, part) for part in narrow.of)
    if isinstance(wide, Either):
        return any(covers(part, narrow) for part in wide.of)
    if isinstance(wide, These) and isinstance(narrow, These):
        return all(set(ids) <= set(wide.of.get(model, ())) for model, ids in narrow.of.items())
    if isinstance(wide, AllBut) and isinstance(narrow, AllBut):
        return covers(narrow.of, wide.of)
    return False
