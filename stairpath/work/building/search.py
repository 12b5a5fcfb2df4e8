"""Finding components: by a few letters, and by conditions."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from stairpath.core.cache import Cache
from stairpath.core.register.common import Common, in_common
from stairpath.core.register.scale import NotAScaleError, Scale, scale
from stairpath.core.register.search import Hit, Index
from stairpath.core.visibility.condition import Condition
from stairpath.core.visibility.conditions import all_met, unlike
from stairpath.core.visibility.facts import Kind
from stairpath.core.visibility.highlights import OFFERED, Check, check
from stairpath.core.visibility.rules import Rule, selected
from stairpath.core.visibility.selectors import These
from stairpath.core.visibility.traits import Traits
from stairpath.work.base.errors import WrongError
from stairpath.work.base.unit_of_work import read_only
from stairpath.work.building.visibility import traits_of

_MOST_VALUES = 200


@dataclass(frozen=True)
class Found:
    """What was found in one version of a building: how many components, and the likeliest of them."""

    version: int
    count: int
    hits: list[Hit]
    asked: Traits


def highlights(project_id: str, background: str, colours: Sequence[str]) -> list[Check]:
    """How the colours offered for what is picked, and further ones, stand out from the building and its background."""
    with read_only() as look:
        rows, _ = traits_of(look, project_id)
    placed = [model.placed.colours for model in rows.models if model.stands and model.placed is not None]
    others = [background, *(colour for colours_of in placed for colour in colours_of)]
    return [check(colour, others) for colour in dict.fromkeys((*OFFERED, *colours))]


_indices: Cache[tuple[str, Traits], Index] = Cache(256, owner_of=lambda key: key[0])


def find(project_id: str, typed: str, limit: int) -> Found:
    """Components by a few letters of what they are called; of alternatives those that stand."""
    with read_only() as look:
        rows, asked = traits_of(look, project_id)
    count, hits = _indices.get((project_id, asked), lambda: Index(asked)).search(typed, limit)
    return Found(rows.project.version, count, hits, asked)


def checked(conditions: Sequence[Condition], asked: Traits) -> Sequence[Condition]:
    """Conditions as they are; refused where one asks for a unit of something else."""
    for condition in conditions:
        if wrong := unlike(condition, asked.facts):
            raise WrongError(wrong)
    return conditions


@dataclass(frozen=True)
class Wanted:
    """Components that meet conditions, and that rules do not hide where ``shown_by`` has any."""

    conditions: tuple[Condition, ...] = ()
    shown_by: tuple[Rule, ...] | None = None


@dataclass(frozen=True)
class Matching:
    """Which components (n,) of one version of a building meet conditions."""

    version: int
    met: npt.NDArray[np.bool_]


def matching(project_id: str, conditions: Sequence[Condition]) -> Matching:
    """Which components that stand meet every condition."""
    with read_only() as look:
        rows, asked = traits_of(look, project_id)
    return Matching(rows.project.version, all_met(checked(conditions, asked), asked) & asked.stands)


@dataclass(frozen=True)
class Askable:
    """A property or quantity that can be asked for: its set and name, the units it comes in, some of its values."""

    kind: Kind
    group: str
    name: str
    units: list[str]
    values: list[str]
    components: int


def askable(project_id: str) -> list[Askable]:
    """Every property and quantity that components of the building have, by set and name."""
    with read_only() as look:
        _, asked = traits_of(look, project_id)
    return [
        Askable(
            kind, group, name, sorted({unit for unit in fact.units if unit}),
            sorted(set(fact.texts))[:_MOST_VALUES], len(np.unique(fact.owner)),
        )
        for kind, facts in asked.facts.of.items()
        for (group, name), fact in sorted(facts.items())
    ]  # fmt: skip


def scale_of(project_id: str, what: str) -> Scale:
    """The figures that components of a project's building have of something, in steps."""
    with read_only() as look:
        _, asked = traits_of(look, project_id)
    try:
        return scale(asked.facts, what)
    except NotAScaleError as error:
        raise WrongError(str(error)) from error


def common(project_id: str, these: These) -> list[Common]:
    """What components of a project's building have in common."""
    with read_only() as look:
        _, asked = traits_of(look, project_id)
    members = selected(asked, these)
    if not members.any():
        raise WrongError("None of these components is in the building any more. Select others.")
    return in_common(asked, members)
