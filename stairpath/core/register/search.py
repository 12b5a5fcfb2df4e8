"""Components found by a few letters of what they are called, the likeliest first; a wrong letter is forgiven."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import numpy.typing as npt
from rapidfuzz import fuzz, process

from stairpath.core.visibility.attributes import ATTRIBUTES
from stairpath.core.visibility.traits import Traits, folded

Scores = npt.NDArray[np.float32]
Ints = npt.NDArray[np.int32]

_SAME, _BEGINS, _WORD, _WITHIN, _LIKE = 1.0, 0.94, 0.88, 0.7, 0.66
"""How good it is to be the text, to begin it, to begin a word of it, to stand in it, to be like it."""
_ALIKE = 70.0
"""A text that is less like what was typed than this, in percent, is another one."""
_LETTERS_FORGIVEN_FROM = 4
"""What is shorter is meant as typed."""
_LEAST_OF_ID = 6
_IN_PARTS = 0.9
"""Words found apart count a little less than all of them together."""
_BREAK = "\n"
_NAMES = sorted(
    ((what, each.weight) for what, each in ATTRIBUTES.items() if each.weight is not None),
    key=lambda named: -named[1],
)
"""What a component is called, and how much that counts; what counts most is looked through first."""
_WHERE = tuple(what for what, each in ATTRIBUTES.items() if each.weight is None)
"""Where it is, which says more of which of many is meant than it finds one."""


def _places(wanted: str, run: str) -> Iterator[int]:
    """Where a text stands in a longer one, one after the other without overlap."""
    at = run.find(wanted)
    while at >= 0:
        yield at
        at = run.find(wanted, at + len(wanted))


@dataclass(frozen=True, eq=False)
class Field:
    """Texts, each once, of which components have which: ``owner[k]`` has ``texts[value[k]]``."""

    name: str
    weight: float
    texts: Sequence[str]
    owner: Ints
    value: Ints
    forgiving: bool = True
    least: int = 1
    """What is shorter stands in it by chance."""

    @cached_property
    def folded(self) -> list[str]:
        """The texts as they are compared."""
        return [folded(text).replace(_BREAK, " ") for text in self.texts]

    @cached_property
    def _run(self) -> tuple[str, npt.NDArray[np.int64]]:
        """All of them as one text, and where each begins."""
        return _BREAK + _BREAK.join(self.folded) + _BREAK, 1 + np.cumsum([0, *(len(t) + 1 for t in self.folded)])

    def scores(self, wanted: str) -> Scores:
        """How well each text (u,) is what was typed: 0 for not at all, 1 for the same."""
        out = np.zeros(len(self.texts) + 1, dtype=np.float32)
        if len(wanted) < self.least:
            return out[:-1]
        run, first = self._run
        short = len(wanted) < 2
        at = np.array(list(_places(_BREAK + wanted if short else wanted, run)), dtype=np.int64) + short
        if len(at):
            text = np.searchsorted(first, at, side="right") - 1
            before = np.array([run[k - 1] for k in at.tolist()])
            score = np.where(at == first[text], _BEGINS, np.where(np.char.isalnum(before), _WITHIN, _WORD))
            whole = (at == first[text]) & (at + len(wanted) == first[text + 1] - 1)
            np.maximum.at(out, text, np.where(whole, _SAME, score).astype(np.float32))
        return out[:-1]

    def likes(self, wanted: str) -> Scores:
        """How like each text (u,) is to what was typed, a wrong or missing letter forgiven."""
        if not self.forgiving or len(wanted) < _LETTERS_FORGIVEN_FROM or not self.texts:
            return np.zeros(len(self.texts), dtype=np.float32)
        out = np.zeros(len(self.texts), dtype=np.float32)
        # A tag is meant as a whole, one word of a name often is.
        part = np.array([self.name != "tag" and len(text) > len(wanted) for text in self.folded], dtype=bool)
        for which, scorer in ((part, fuzz.partial_ratio), (~part, fuzz.ratio)):
            at = np.flatnonzero(which)
            if len(at):
                some = [self.folded[k] for k in at.tolist()]
                alike = process.cdist([wanted], some, scorer=scorer, score_cutoff=_ALIKE, dtype=np.float32)[0]
                out[at] = alike * np.float32(_LIKE / 100)
        return out

    def spread(self, of_texts: Scores, count: int) -> Scores:
        """Scores of components (n,) from those of texts."""
        score: Scores = of_texts[self.value] * np.float32(self.weight)
        if len(self.owner) == count:  # each has one
            return score
        out = np.zeros(count, dtype=np.float32)
        np.maximum.at(out, self.owner, score)
        return out


def _parted(words: Sequence[str]) -> list[tuple[str, ...]]:
    """Words apart, and with two beside one another as one: "AD level 01" is AD on level 01."""
    pairs = [(*words[:k], f"{words[k]} {words[k + 1]}", *words[k + 2 :]) for k in range(len(words) - 1)]
    return [tuple(words), *(pair for pair in pairs if len(pair) > 1)]


@dataclass(frozen=True)
class Hit:
    """A component that was found, and the text of it that was meant."""

    component: int
    field: str
    text: str
    score: float


class Index:
    """What components of a federation are called, to be searched; of alternatives those that stand."""

    def __init__(self, asked: Traits) -> None:
        facts = asked.facts
        self.count = asked.count
        self._stands = asked.stands
        self.fields: list[Field] = []
        rows = np.arange(self.count, dtype=np.int32)
        for what, weight in _NAMES:
            column = asked.columns[what]
            owner = rows if column.owner is None else column.owner
            self.fields.append(Field(what, weight, column.values, owner, column.value))
        for what in _WHERE:
            column = asked.columns[what]
            texts = [
                " ".join(dict.fromkeys(names)) if value else ""
                for value, names in zip(column.values, column.spoken, strict=True)
            ]
            self.fields.append(Field(what, 0.5, texts, rows, column.value, forgiving=False))
        ids = asked.columns["global_id"]
        self.fields.append(Field("global_id", 0.98, ids.values, rows, ids.value, forgiving=False, least=_LEAST_OF_ID))
        numbers: dict[str, int] = {}
        value = np.array([numbers.setdefault(text, len(numbers)) for text in facts.descriptions], np.int32)
        self.fields.append(Field("description", 0.82, tuple(numbers), rows, value))
        for (_, name), fact in facts.of["property"].items():
            self.fields.append(Field(name, 0.6, fact.texts, fact.owner, fact.value, forgiving=False))

    def _found(self, wanted: str, forgiving: bool) -> tuple[Scores, Ints]:
        """The best score of each component (n,) and the field that it is in, -1 for none."""
        best = np.zeros(self.count, dtype=np.float32)
        where = np.full(self.count, -1, dtype=np.int32)
        for k, field in enumerate(self.fields):
            of_texts = field.likes(wanted) if forgiving else field.scores(wanted)
            if of_texts.any():
                score = field.spread(of_texts, self.count)
                better = score > best
                best[better], where[better] = score[better], k
        return best, where

    def _as_typed_or_like(self, wanted: str) -> tuple[Scores, Ints]:
        """What is there as it was typed, else what is like it."""
        exact = self._found(wanted, False)
        return exact if exact[0].any() else self._found(wanted, True)

    def search(self, typed: str, limit: int = 50) -> tuple[int, list[Hit]]:
        """How many components are meant by what was typed, and the likeliest of them first."""
        wanted = folded(typed)
        words = wanted.split()
        if not words:
            return 0, []
        if len(words) == 1:
            best, where = self._as_typed_or_like(wanted)
        else:
            best, where = self._found(wanted, False)
            by_part = {word: self._as_typed_or_like(word) for word in words}
            for parts in _parted(words):
                for part in parts:
                    by_part.setdefault(part, self._found(part, False))
                scores = np.array([by_part[part][0] for part in parts])
                mean = np.where((scores > 0).all(axis=0), scores.mean(axis=0) * _IN_PARTS, 0).astype(np.float32)
                better = mean > best
                best[better] = mean[better]
                fields = np.array([by_part[part][1] for part in parts])
                where[better] = fields[scores.argmax(axis=0), np.arange(self.count)][better]
        found = np.flatnonzero((best > 0) & self._stands)
        order = found[np.argsort(-best[found], kind="stable")][:limit]
        return len(found), [
            Hit(component, field.name, self._text(field, component), float(best[component]))
            for component in order.tolist()
            for field in [self.fields[int(where[component])]]
        ]

    def _text(self, field: Field, component: int) -> str:
        """The first of a component's texts in a field."""
        at = int(np.searchsorted(field.owner, component))
        return field.texts[int(field.value[at])]
