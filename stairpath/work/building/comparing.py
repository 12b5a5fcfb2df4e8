"""What differs between two issues of a model, or between two alternatives."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import partial

import numpy as np

from stairpath.core.cache import Cache
from stairpath.core.comparing.compare import Compared, compare
from stairpath.core.comparing.gone import Gone, gone
from stairpath.core.comparing.issue import Issue
from stairpath.core.federation.placed import Placed
from stairpath.store import issues
from stairpath.store.issues import Listing as Listing
from stairpath.store.tables import EarlierIssue, Model
from stairpath.work.base.errors import MissingError, UnfitError
from stairpath.work.base.lookup import MODEL, find
from stairpath.work.base.project_rows import rows_of
from stairpath.work.base.unit_of_work import UnitOfWork, read_only
from stairpath.work.building.placed import geometry_of


@dataclass(frozen=True, eq=False)
class Changes:
    """What became of one issue in another one; ``old`` and ``new`` list their components, ``model`` has the new ones."""

    compared: Compared
    old: Listing
    new: Listing
    model: str
    old_model: str


def earlier(model_id: str) -> list[EarlierIssue]:
    """The earlier issues of a model, newest first."""
    with read_only() as look:
        return issues.issues_of(look.session, find(look, MODEL, model_id, removed=True).id)


_kept: Cache[tuple[object, ...], Changes] = Cache(128)


def _issue(look: UnitOfWork, listing: Listing, geometry_sha: str, matrix: list[list[float]] | None, name: str) -> Issue:
    geometry = geometry_of(look, geometry_sha)
    if geometry is None or matrix is None:
        raise UnfitError(f"{name} is being read or aligned. Compare when it is ready.")
    to = np.array(matrix)
    count = len(listing.components)
    placed = Placed(geometry, to, geometry.bounds(count, to), np.ones(count, dtype=bool))
    return Issue(listing.components, placed, listing.storeys)


def _where(model: Model) -> list[list[float]]:
    """The matrix by which a model stands; refused where its rows are not those of its file, or it does not stand yet."""
    if model.status != "read" or model.placed is None:
        raise UnfitError(f"{model.name} is not read and aligned yet. Compare when it is ready.")
    return model.placed.matrix


def _present(look: UnitOfWork, model: Model) -> tuple[Listing, Issue]:
    listing = issues.listing_of(look.session, model)
    return listing, _issue(look, listing, model.geometry or "", _where(model), model.name)


def _before(look: UnitOfWork, model: Model, issue_id: str | None) -> EarlierIssue:
    there = issues.issues_of(look.session, model.id)
    found = next((each for each in there if issue_id in (None, each.id)), None)
    if found is None:
        raise MissingError(f"There is no earlier issue of {model.name} to compare it with; add a newer file first.")
    return found


@dataclass(frozen=True, eq=False)
class _Sides:
    """The two that are compared: the model as it is now, and what it is compared with, which ``old_model`` has or had."""

    new: Model
    old_model: Model
    key: tuple[object, ...]
    old: Callable[[], tuple[Listing, Issue]]


def _sides(look: UnitOfWork, model_id: str, issue_id: str | None, other_id: str | None) -> _Sides:
    """A model beside another one, or beside an earlier issue of it: the last one where none is named."""
    model = find(look, MODEL, model_id, removed=True)
    if other_id:
        other = find(look, MODEL, other_id, within=model.project_id)
        for each in (model, other):
            _where(each)
        key = (model.file_sha, str(model.placed), other.file_sha, str(other.placed), model.id, other.id)
        return _Sides(model, other, key, partial(_present, look, other))
    before = _before(look, model, issue_id)
    stands = _where(model)

    def old() -> tuple[Listing, Issue]:
        listing = issues.load_listing(look.session, before)
        return listing, _issue(look, listing, before.geometry, before.matrix or stands, model.name)

    return _Sides(model, model, (model.file_sha, str(model.placed), before.id), old)


def changes(model_id: str, issue_id: str | None, other_id: str | None) -> Changes:
    """What differs in a model from another one, as between alternatives, or from an earlier issue of it."""
    with read_only() as look:
        sides = _sides(look, model_id, issue_id, other_id)

        def make() -> Changes:
            new, now = _present(look, sides.new)
            old, was = sides.old()
            return Changes(compare(was, now), old, new, sides.new.id, sides.old_model.id)

        return _kept.get(sides.key, make)


@dataclass(frozen=True, eq=False)
class GoneFrom:
    """What was removed, as it stood, and where what was moved or reshaped was; ``old`` lists their components."""

    removed: Gone
    moved: Gone
    old: Listing
    old_model: str


def gone_from(model_id: str, issue_id: str | None, other_id: str | None) -> GoneFrom:
    """What of another model, or of an earlier issue, stands no longer where it stood; about the project's origin."""
    found = changes(model_id, issue_id, other_id)
    with read_only() as look:
        sides = _sides(look, model_id, issue_id, other_id)
        origin = np.array(rows_of(look, sides.new.project_id).building.origin_m)
        _, was = sides.old()
        before = {b: a for a, b in found.compared.pairs}
        elsewhere = [number for number, _ in found.compared.moved] + list(found.compared.reshaped)
        return GoneFrom(
            gone(was, found.compared.removed, origin),
            gone(was, [before[number] for number in elsewhere], origin),
            found.old,
            found.old_model,
        )
