"""What rules can ask of components, as columns: one row for each component, in the order of its numbers."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from fnmatch import translate
from functools import cached_property

import numpy as np
import numpy.typing as npt

from stairpath.core.federation.disciplines import DISCIPLINES
from stairpath.core.federation.federate import Federation
from stairpath.core.reading.model import ModelReading
from stairpath.core.visibility.attributes import What
from stairpath.core.visibility.facts import Facts, facts_of

Mask = npt.NDArray[np.bool_]
Ints = npt.NDArray[np.int32]

USUAL = {
    "DuctSegment": "duct",
    "PipeSegment": "pipe",
    "CableSegment": "cable",
    "CableCarrierSegment": "cable tray",
    "BuildingElementProxy": "unclassified component",
}
"""What people call a component of a class whose own name they would not say."""
CASES = re.compile(r"(StandardCase|ElementedCase)$")
_APART = re.compile(r"([a-z])([A-Z])")


@dataclass(frozen=True)
class Words:
    """What a model file says of its components, one text each; several systems for one are parted by ``BETWEEN``."""

    global_ids: Sequence[str]
    labels: Sequence[str]
    classes: Sequence[str]
    types: Sequence[str]
    systems: Sequence[str]
    materials: Sequence[str]
    names: Sequence[str]
    tags: Sequence[str]


BETWEEN = "\x1f"


def label_of(name: str, tag: str, ifc_class: str) -> str:
    """What a component is called where there is room for one word."""
    return tag or name or ifc_class


def full_label_of(name: str, tag: str, ifc_class: str) -> str:
    """What a component is called in a sentence: by name and tag, its tag once.

    >>> full_label_of("Duct", "AD-114", "IfcDuctSegment"), full_label_of("Half landing S1.L", "S1.L", "IfcSlab")
    ('Duct AD-114', 'Half landing S1.L')
    """
    return name if tag and tag in name else " ".join(part for part in (name, tag) if part) or ifc_class


def words_of(reading: ModelReading) -> Words:
    """The words of a reading."""
    read = reading.components
    return Words(
        global_ids=[c.global_id for c in read],
        labels=[label_of(c.name, c.tag, c.ifc_class) for c in read],
        classes=[c.ifc_class for c in read],
        types=[c.type_name for c in read],
        systems=[BETWEEN.join(c.systems) for c in read],
        materials=[c.material for c in read],
        names=[c.name for c in read],
        tags=[c.tag for c in read],
    )


def folded(text: str) -> str:
    """A name as it is compared: without regard to case and to space around it."""
    return text.strip().casefold()


@dataclass(frozen=True, eq=False)
class Column:
    """Which of some values each component has: ``value[k]`` for the component ``owner[k]``; one may have several.

    Without owners each has one, in order.

    ``spoken`` is, for each value, every name that means it; ``exact`` names count with their case.
    """

    values: tuple[str, ...]
    spoken: tuple[tuple[str, ...], ...]
    owner: Ints | None
    value: Ints
    count: int
    exact: bool = False

    def _as_compared(self, name: str) -> str:
        return name.strip() if self.exact else folded(name)

    @cached_property
    def _by_name(self) -> dict[str, list[int]]:
        found: dict[str, list[int]] = {}
        for index, names in enumerate(self.spoken):
            for name in {self._as_compared(n) for n in names}:
                found.setdefault(name, []).append(index)
        return found

    def meant(self, name: str) -> list[int]:
        """The values that a name means; ``*`` stands for anything in it."""
        wanted = self._as_compared(name)
        if "*" not in wanted:
            return self._by_name.get(wanted, [])
        like = re.compile(translate(re.sub(r"([\[?])", r"[\1]", wanted)))
        return sorted({i for spoken, indices in self._by_name.items() if like.match(spoken) for i in indices})

    def having(self, name: str) -> Mask:
        """Which components (n,) have a value of that name."""
        return self.with_values(self.meant(name))

    def with_values(self, meant: Sequence[int]) -> Mask:
        """Which components (n,) have one of some values, by their places."""
        if len(meant) == 1:
            of_value: Mask = self.value == meant[0]
        else:
            flags = np.zeros(len(self.values) + 1, dtype=bool)
            flags[list(meant)] = True
            of_value = flags[self.value]
        if self.owner is None:
            return of_value
        out = np.zeros(self.count, dtype=bool)
        out[self.owner[of_value]] = True
        return out


def column(texts: Iterable[str], spoken: Mapping[str, tuple[str, ...]] | None = None, exact: bool = False) -> Column:
    """A column of one text for each component; the empty text is the value of those that have none."""
    numbers: dict[str, int] = {}
    value = np.array([numbers.setdefault(text, len(numbers)) for text in texts], dtype=np.int32)
    values = tuple(numbers)
    names = tuple((spoken or {}).get(v, (v,)) for v in values)
    return Column(values, names, None, value, len(value), exact)


def _several(texts: Iterable[str]) -> Column:
    """A column of any number of texts for each component."""
    numbers: dict[str, int] = {}
    owner: list[int] = []
    value: list[int] = []
    count = 0
    for count, text in enumerate(texts, 1):
        for one in text.split(BETWEEN):
            owner.append(count - 1)
            value.append(numbers.setdefault(one, len(numbers)))
    values = tuple(numbers)
    return Column(
        values, tuple((v,) for v in values), np.array(owner, np.int32), np.array(value, np.int32), count
    )  # fmt: skip


def _numbered(numbers: Ints, values: Sequence[str], spoken: Sequence[tuple[str, ...]]) -> Column:
    """A column whose values are counted already; -1 is none."""
    value = np.where(numbers < 0, len(values), numbers).astype(np.int32)
    return Column((*values, ""), (*spoken, ("", "none")), None, value, len(numbers))


@dataclass(frozen=True)
class ModelTraits:
    """One model of a federation: its key and name, whether it stands, its words and where its components are.

    ``level``, ``discipline`` and ``room`` (n,) count those of the federation, -1 for none.
    """

    key: str
    name: str
    stands: bool
    words: Words
    level: Ints
    discipline: Ints
    room: Ints


@dataclass(frozen=True, eq=False)
class Traits:
    """All components of a federation, as rules ask of them."""

    keys: tuple[str, ...]
    first: Ints
    stands: Mask
    labels: tuple[str, ...]
    columns: Mapping[What, Column]
    told: Callable[[], Facts]
    """Tells the properties and quantities, which few rules ask for."""

    @cached_property
    def facts(self) -> Facts:
        """Properties, quantities and descriptions of the components."""
        return self.told()

    @property
    def count(self) -> int:
        """How many components there are."""
        return len(self.stands)

    @cached_property
    def _numbers(self) -> dict[str, dict[str, int]]:
        ids = self.columns["global_id"].values
        of_row = self.columns["global_id"].value
        bounds = [*self.first.tolist(), self.count]
        return {
            key: {ids[of_row[row]]: row for row in range(bounds[i], bounds[i + 1])} for i, key in enumerate(self.keys)
        }

    @cached_property
    def _anywhere(self) -> dict[str, int]:
        return {global_id: number for known in reversed(self._numbers.values()) for global_id, number in known.items()}

    def numbers_of(self, key: str, global_ids: Iterable[str]) -> list[int]:
        """The numbers of a model's components; those that it does not have are left out.

        Without a key those of whatever model, the first that has each: what was named before any model brought it.
        """
        known = self._numbers.get(key, {}) if key else self._anywhere
        return [known[g] for g in global_ids if g in known]

    def global_id(self, number: int) -> str:
        """The GlobalId of a component."""
        ids = self.columns["global_id"]
        return ids.values[int(ids.value[number])]

    def model_of(self, number: int) -> str:
        """The key of a component's model."""
        return self.keys[int(np.searchsorted(self.first, number, side="right")) - 1]


def _classes(texts: Sequence[str]) -> Column:
    def names(text: str) -> tuple[str, ...]:
        bare = text.removeprefix("Ifc")
        whole = (text, bare, CASES.sub("", text), CASES.sub("", bare))
        # As it is read in lists, and as the standard's name reads: pipe, Pipe segment for IfcPipeSegment.
        usual = [USUAL[name] for name in whole[3:] if name in USUAL]
        return (*whole, *(_APART.sub(r"\1 \2", name) for name in whole[1::2]), *usual)

    return column(texts, {text: names(text) for text in set(texts)})


def traits(
    models: Sequence[ModelTraits], levels: Sequence[str], rooms: Sequence[tuple[str, str]], told: Callable[[], Facts]
) -> Traits:
    """The traits of a federation's models; levels by name, rooms by number and name; ``told`` as in ``Traits``."""
    counts = [len(m.words.global_ids) for m in models]

    def texts(of: str) -> list[str]:
        return [text for m in models for text in getattr(m.words, of)]

    def joined(of: str) -> Ints:
        parts = [getattr(m, of) for m in models]
        return np.concatenate(parts).astype(np.int32) if parts else np.zeros(0, np.int32)

    plain = [re.sub(r"^level\s+", "", name, flags=re.IGNORECASE) for name in levels]
    codes = [d.code for d in DISCIPLINES]
    model = np.repeat(np.arange(len(models), dtype=np.int32), counts)
    return Traits(
        keys=tuple(m.key for m in models),
        first=np.cumsum([0, *counts])[:-1].astype(np.int32),
        stands=np.repeat(np.array([m.stands for m in models], dtype=bool), counts),
        labels=tuple(texts("labels")),
        columns={
            "global_id": column(texts("global_ids"), exact=True),
            "class": _classes(texts("classes")),
            "type": column(texts("types")),
            "system": _several(texts("systems")),
            "material": column(texts("materials")),
            "name": column(texts("names")),
            "tag": column(texts("tags")),
            "model": _numbered(model, [m.name for m in models], [(m.name, m.key) for m in models]),
            "level": _numbered(joined("level"), levels, [(n, p) for n, p in zip(levels, plain, strict=True)]),
            "discipline": _numbered(joined("discipline"), codes, [(d.code, d.name) for d in DISCIPLINES]),
            "room": _numbered(
                joined("room"), [f"{number} {name}".strip() for number, name in rooms],
                [(number, name, f"{number} {name}") for number, name in rooms],
            ),
        },
        told=told,
    )  # fmt: skip


def federation_traits(federation: Federation, readings: Sequence[ModelReading]) -> Traits:
    """The traits of a federation, with the readings of its models in their order; each model's key is its name."""
    return traits(
        [
            ModelTraits(m.outline.name, m.outline.name, m.stands, w, m.level, m.discipline_of, m.room)
            for m, w in zip(federation.models, map(words_of, readings), strict=True)
        ],
        [level.name for level in federation.levels],
        [(room.number, room.name) for room in federation.rooms],
        lambda: facts_of(component for reading in readings for component in reading.components),
    )
