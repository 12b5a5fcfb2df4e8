"""Viewpoints: keeping, naming, deleting and bringing back."""

from __future__ import annotations

from datetime import UTC, datetime

from stairpath.core.review.view import View
from stairpath.store import blobs, kept
from stairpath.store.tables import Viewpoint
from stairpath.work.deed import Deed, Who, deed, looking
from stairpath.work.projects import in_use
from stairpath.work.refusals import GoneError, MissingError, WrongError


def listed(project_id: str) -> list[Viewpoint]:
    """The project's viewpoints, newest first."""
    with looking() as look:
        return kept.viewpoints(look.session, in_use(look, project_id).id)


def keep(who: Who, project_id: str, name: str, picture_png: bytes, view: View) -> Viewpoint:
    """Keep a view with its picture."""
    with deed(who) as act:
        project = in_use(act, project_id)
        viewpoint = Viewpoint(
            project_id=project.id,
            name=name.strip() or "Untitled",
            author=who.said,
            picture=blobs.keep(act.session, picture_png, "image/png"),
            view=view,
        )
        kept.add(act.session, viewpoint)
        act.tell(project.id, "viewpoints", what=viewpoint.id)
        return viewpoint


def _found(act: Deed, viewpoint_id: str) -> Viewpoint:
    found = kept.viewpoint_by_id(act.session, viewpoint_id)
    if found is None:
        raise MissingError("There is no such viewpoint; it may have been made in another project.")
    return found


def _there(act: Deed, viewpoint_id: str) -> Viewpoint:
    found = _found(act, viewpoint_id)
    if found.removed_at is not None:
        raise GoneError(f"The viewpoint {found.name} was deleted; ask {found.author} for another link.")
    return found


def one(viewpoint_id: str) -> Viewpoint:
    """One viewpoint, for a link to it."""
    with looking() as look:
        return _there(look, viewpoint_id)


def rename(who: Who, viewpoint_id: str, name: str) -> Viewpoint:
    """Give a viewpoint another name."""
    with deed(who) as act:
        found = _there(act, viewpoint_id)
        if not name.strip():
            raise WrongError("A viewpoint needs a name; type one.")
        found.name = name.strip()
        act.tell(found.project_id, "viewpoints", what=found.id)
        return found


def delete(who: Who, viewpoint_id: str) -> None:
    """Delete a viewpoint; it can be brought back."""
    with deed(who) as act:
        found = _there(act, viewpoint_id)
        found.removed_at = datetime.now(UTC)
        act.tell(found.project_id, "viewpoints", what=found.id)


def bring_back(who: Who, viewpoint_id: str) -> Viewpoint:
    """Bring back a viewpoint that was deleted."""
    with deed(who) as act:
        found = _found(act, viewpoint_id)
        found.removed_at = None
        act.tell(found.project_id, "viewpoints", what=found.id)
        return found
