"""What differs between two issues of a model, or between two alternatives."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from stairpath.core.comparing.compare import Compared, compare
from stairpath.core.comparing.issue import Issue
from stairpath.core.federation.placed import Placed
from stairpath.store import issues
from stairpath.store.issues import Listing
from stairpath.store.tables import EarlierIssue, Model
from stairpath.work.deed import Deed, looking
from stairpath.work.placed import geometry_of
from stairpath.work.refusals import MissingError, UnfitError
from stairpath.work.remembered import Remembered


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
    with looking() as look:
        return issues.issues_of(look.session, look.model(model_id).id)


_kept: Remembered[tuple[object, ...], Changes] = Remembered(8)


def _issue(look: Deed, listing: Listing, geometry_sha: str, matrix: list[list[float]] | None, name: str) -> Issue:
    geometry = geometry_of(look, geometry_sha)
    if geometry is None or matrix is None:
        raise UnfitError(f"{name} is being read, or put in its place; compare when it is there.")
    to = np.array(matrix)
    count = len(listing.components)
    placed = Placed(geometry, to, geometry.bounds(count, to), np.ones(count, dtype=bool))
    return Issue(listing.components, placed, listing.storeys)


def _where(model: Model) -> list[list[float]]:
    """The matrix by which a model stands; refused where its rows are not those of its file, or it does not stand yet."""
    if model.status != "read" or model.placed is None:
        raise UnfitError(f"{model.name} is not read and in its place yet; compare when it is there.")
    return model.placed.matrix


def _present(look: Deed, model: Model) -> tuple[Listing, Issue]:
    listing = issues.listing_of(look.session, model)
    return listing, _issue(look, listing, model.geometry or "", _where(model), model.name)


def _before(look: Deed, model: Model, issue_id: str | None) -> EarlierIssue:
    there = issues.issues_of(look.session, model.id)
    found = next((each for each in there if issue_id in (None, each.id)), None)
    if found is None:
        raise MissingError(f"There is no earlier issue of {model.name} to compare it with; add a newer file first.")
    return found


def since_issue(model_id: str, issue_id: str | None) -> Changes:
    """What differs in a model from an earlier issue of it, the last one where none is named."""
    with looking() as look:
        model = look.model(model_id)
        before = _before(look, model, issue_id)
        stands = _where(model)

        def make() -> Changes:
            new, now = _present(look, model)
            old = issues.load_listing(look.session, before)
            was = _issue(look, old, before.geometry, before.matrix or stands, model.name)
            return Changes(compare(was, now), old, new, model.id, model.id)

        return _kept.get((model.file_sha, str(model.placed), before.id), make)


def between_models(model_id: str, other_id: str) -> Changes:
    """What differs in a model from another one, as between two alternatives."""
    with looking() as look:
        model, other = look.model(model_id), look.model(other_id)
        for each in (model, other):
            _where(each)

        def make() -> Changes:
            new, now = _present(look, model)
            old, was = _present(look, other)
            return Changes(compare(was, now), old, new, model.id, other.id)

        return _kept.get(
            (model.file_sha, str(model.placed), other.file_sha, str(other.placed), model.id, other.id), make
        )
