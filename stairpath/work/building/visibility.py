"""What of a project's building a list of rules shows, fades, hides and tints, and views that addresses name."""

from __future__ import annotations

import hashlib
from collections.abc import Sequence
from dataclasses import dataclass
from functools import partial

import numpy as np
from pydantic import TypeAdapter

from stairpath.core.cache import Cache
from stairpath.core.review.view import View
from stairpath.core.visibility import wording
from stairpath.core.visibility.attributes import What
from stairpath.core.visibility.facts import Facts, facts_of, joined
from stairpath.core.visibility.rules import Resolved, Rule, places_kept, resolve
from stairpath.core.visibility.selectors import Selector, These
from stairpath.core.visibility.traits import ModelTraits, Traits, traits
from stairpath.store import components, federations, kept, readings
from stairpath.store.federations import ChangedError
from stairpath.store.tables import Link, Model
from stairpath.work.base.errors import MissingError, UnfitError
from stairpath.work.base.project_rows import Rows, rows_of
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import UnitOfWork, Who, read_only, unit_of_work

_VIEW: TypeAdapter[View] = TypeAdapter(View)
_SHORT = 10


@dataclass(frozen=True)
class Line:
    """A rule in plain words: what making it did, what it says, how many it selects, and for how many it decides.

    ``place`` is its place among the rules that were sent; ``gone`` counts the components that it names one by one and
    the building no longer has.
    """

    place: int
    done: str
    says: str
    selects: int
    decides: int
    gone: int


@dataclass(frozen=True)
class Seen:
    """A project's building under rules, for one version of it; ``done`` names what the last of them did."""

    version: int
    done: str
    rules: list[Line]
    resolved: Resolved


def _part(look: UnitOfWork, model: Model) -> ModelTraits | None:
    """What rules ask of a model's components; None for one that is not drawn."""
    placed, frame = model.placed, model.frame
    if placed is None or frame is None or placed.columns is None or frame.columns is None:
        return None
    try:
        words, where = readings.load_words(look.session, frame), federations.places(look.session, model)
    except (LookupError, ChangedError) as error:
        raise UnfitError(f"{model.name} is being read again; what is shown follows when it is there.") from error
    return ModelTraits(model.id, model.name, model.stands, words, where["level"], where["discipline"], where["room"])


_facts: Cache[tuple[str, str, str, str | None], Facts] = Cache(256, owner_of=lambda key: key[0])


def _facts_in(model: Model) -> Facts:
    with read_only() as look:
        return facts_of(components.details_of(look.session, model.id))


def _facts_of(models: Sequence[Model]) -> Facts:
    """Properties and quantities of the components of models, those of the last few kept in memory."""
    # A model's rows are those of the file before until a newer one is read.
    keys = [(model.id, model.file_sha, model.status, model.geometry) for model in models]
    return joined([_facts.get(key, partial(_facts_in, model)) for key, model in zip(keys, models, strict=True)])


_traits: Cache[Rows, Traits] = Cache(256, owner_of=lambda rows: rows.project.id)


def traits_of(look: UnitOfWork, project_id: str) -> tuple[Rows, Traits]:
    """The project's rows, and what rules ask of its components; the last few kept in memory."""
    rows = rows_of(look, project_id)
    return rows, _traits.get(rows, lambda: _traits_in(look, rows))


def _traits_in(look: UnitOfWork, rows: Rows) -> Traits:
    parts = [part for model in rows.models if (part := _part(look, model)) is not None]
    building = rows.building
    rooms = [(room.number, room.name) for room in building.rooms]
    keys = {part.key for part in parts}
    drawn = [model for model in rows.models if model.id in keys]
    return traits(parts, [level.name for level in building.levels], rooms, lambda: _facts_of(drawn))


def _gone(asked: Traits, select: Selector) -> int:
    """How many components a selector names one by one that the building no longer has."""
    if isinstance(select, These):
        return sum(len(ids) - len(asked.numbers_of(key, ids)) for key, ids in select.of.items())
    return 0


def see(project_id: str, rules: Sequence[Rule]) -> Seen:
    """How every component appears under rules; those that others leave nothing of are left out of the answer."""
    with read_only() as look:
        rows, asked = traits_of(look, project_id)
    places = places_kept(rules)
    found = resolve(asked, [rules[place] for place in places])
    decided = np.bincount(np.concatenate([found.rule, found.tint_rule]).clip(-1) + 1, minlength=len(places) + 1)
    lines = [
        Line(
            place=place,
            done=wording.done(asked, rules[place]),
            says=wording.stands(asked, rules[place]),
            selects=int(found.selects[k]),
            decides=int(decided[k + 1]),
            gone=_gone(asked, rules[place].select),
        )
        for k, place in enumerate(places)
    ]
    return Seen(rows.project.version, wording.done(asked, rules[-1]) if rules else "", lines, found)


def values_of(project_id: str, what: What) -> list[str]:
    """The values that components of the building have of something, such as their systems, in order."""
    with read_only() as look:
        _, asked = traits_of(look, project_id)
    return sorted(value for value in asked.columns[what].values if value)


def link(who: Who, project_id: str, view: View) -> str:
    """Keep a view for an address to name; the same view has the same id."""
    with unit_of_work(who) as act:
        project = in_use(act, project_id)
        key = hashlib.sha256(_VIEW.dump_json(view)).hexdigest()[:_SHORT]
        kept.keep_link(act.session, Link(project_id=project.id, id=key, view=view))
        return key


def linked(project_id: str, key: str) -> View:
    """The view that an address names."""
    with read_only() as look:
        found = kept.link_by_id(look.session, in_use(look, project_id).id, key)
        if found is None:
            raise MissingError("There is no view of that link; it may have been cut short. Ask for it again.")
        return found.view
