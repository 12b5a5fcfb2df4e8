"""Versions of what people edit: a change that names the version it was made of is refused once somebody changed that."""

from __future__ import annotations

from stairpath.core.review.history import what_changed
from stairpath.store import history
from stairpath.work.base.errors import StaleError
from stairpath.work.base.unit_of_work import UnitOfWork, read_only


def check(act: UnitOfWork, thing_id: str) -> None:
    """Raise StaleError, which says who changed what, where a thing has not the version that the request names."""
    target = act.who.target
    if target is None or target.id != thing_id or target.versions is None:
        return
    if history.version(act.session, thing_id) in target.versions:
        return
    later = history.since(act.session, thing_id, max(target.versions, default=0))
    if not later:
        raise StaleError("The request names a version that there never was. Read it again and repeat your change.")
    said = what_changed((each.author, each.fields) for each in later)
    raise StaleError(f"{said} since you read it. Read it again and repeat your change.")


def version_of(thing_id: str) -> int:
    """The version that a thing has now."""
    with read_only() as look:
        return history.version(look.session, thing_id)
