"""Viewpoints: keeping, naming, deleting and bringing back."""

from __future__ import annotations

from dataclasses import dataclass, replace

from stairpath.core.review.differences import differences, gone
from stairpath.core.review.view import PictureFrame, View
from stairpath.core.texts import trimmed
from stairpath.store import kept
from stairpath.store.tables import Viewpoint as Viewpoint
from stairpath.store.tables import ViewpointBefore, now
from stairpath.work.base.errors import MissingError, UnfitError, WrongError
from stairpath.work.base.lookup import VIEWPOINT, find
from stairpath.work.base.pictures import keep_picture
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import UnitOfWork, Who, read_only, unit_of_work
from stairpath.work.building.visibility import traits_of
from stairpath.work.views.kept_for import KeptFor, kept_for
from stairpath.work.views.thumbnails import coming_picture


@dataclass(frozen=True)
class Listed:
    """A viewpoint, whether another kept or changed it since one last went through them, and what it was kept for."""

    viewpoint: Viewpoint
    new: bool = False
    of: tuple[KeptFor, ...] = ()


def listed(who: Who, project_id: str) -> list[Listed]:
    """The project's viewpoints, newest first; to who was never there nothing is new."""
    with read_only() as look:
        project = in_use(look, project_id)
        last = kept.looked(look.session, project.id, who.said)
        of = kept_for(look, project)
        return [
            Listed(
                row,
                last is not None and row.changed_by != who.said and row.changed_at > last,
                tuple(of.get(row.id, ())),
            )
            for row in kept.viewpoints(look.session, project.id)
        ]


def look_at(who: Who, project_id: str) -> None:
    """Note that somebody went through the project's viewpoints."""
    with unit_of_work(who) as act:
        kept.look_at(act.session, in_use(act, project_id).id, who.said)


def keep(who: Who, project_id: str, name: str, picture_png: bytes | None, view: View) -> Viewpoint:
    """Keep a view with its picture; without one it is drawn by a job."""
    with unit_of_work(who) as act:
        project = in_use(act, project_id)
        picture, large = (
            keep_picture(act, project.id, picture_png) if picture_png else (coming_picture(act, project.id), None)
        )
        viewpoint = Viewpoint(
            project_id=project.id,
            name=trimmed(name) or "Untitled",
            author=who.said,
            changed_by=who.said,
            picture=picture,
            large=large,
            undrawn=picture_png is None,
            view=view,
        )
        kept.add(act.session, viewpoint)
        if viewpoint.undrawn:
            act.draw_pictures(project.id)
        act.tell(project.id, "viewpoints", what=viewpoint.id)
        return viewpoint


def one(viewpoint_id: str) -> Viewpoint:
    """One viewpoint, for a link to it."""
    with read_only() as look:
        return find(look, VIEWPOINT, viewpoint_id)


def changes(viewpoint_id: str, view: View) -> list[str]:
    """What keeping a view over a viewpoint would change, in sentences."""
    with read_only() as look:
        return differences(find(look, VIEWPOINT, viewpoint_id).view, view)


def keep_over(who: Who, viewpoint_id: str, picture_png: bytes, view: View) -> Viewpoint:
    """Keep a view over one that was kept; what it was is kept too, and can be brought back."""
    with unit_of_work(who) as act:
        return _become(act, find(act, VIEWPOINT, viewpoint_id, hold=True), picture_png, view)


def _become(act: UnitOfWork, found: Viewpoint, picture_png: bytes, view: View) -> Viewpoint:
    """Give a viewpoint another view and picture; what it was is kept."""
    _keep_before(act, found)
    found.view, found.undrawn = view, False
    found.picture, found.large = keep_picture(act, found.project_id, picture_png)
    return _changed(act, found)


def _keep_before(act: UnitOfWork, found: Viewpoint) -> None:
    was = {"changed_by": found.changed_by, "picture": found.picture, "large": found.large, "view": found.view}
    kept.add(act.session, ViewpointBefore(viewpoint_id=found.id, **was))


def _changed(act: UnitOfWork, found: Viewpoint) -> Viewpoint:
    found.changed_by, found.changed_at = act.who.said, now()
    act.tell(found.project_id, "viewpoints", what=found.id)
    return found


def earlier(viewpoint_id: str) -> list[ViewpointBefore]:
    """What a viewpoint was before, the last first."""
    with read_only() as look:
        return kept.earlier(look.session, find(look, VIEWPOINT, viewpoint_id).id)


def become_earlier(who: Who, viewpoint_id: str, earlier_id: str) -> Viewpoint:
    """Make a viewpoint what it was earlier; what it is now is kept as well."""
    with unit_of_work(who) as act:
        found = find(act, VIEWPOINT, viewpoint_id, hold=True)
        was = next((each for each in kept.earlier(act.session, found.id) if each.id == earlier_id), None)
        if was is None:
            raise MissingError(f"{found.name} has no such earlier view any more. Choose another.")
        _keep_before(act, found)
        found.view, found.picture, found.large, found.undrawn = was.view, was.picture, was.large, False
        return _changed(act, found)


def take_back(who: Who, viewpoint_id: str) -> Viewpoint:
    """Bring back what a viewpoint was before another view or frame was last kept over it."""
    with unit_of_work(who) as act:
        found = find(act, VIEWPOINT, viewpoint_id, hold=True)
        before = kept.before(act.session, found.id)
        if before is None:
            raise UnfitError(f"{found.name} was not replaced. There is nothing to undo.")
        found.view, found.picture, found.large = before.view, before.picture, before.large
        found.changed_by, found.changed_at = before.changed_by, now()
        act.session.delete(before)
        act.tell(found.project_id, "viewpoints", what=found.id)
        return found


def reframe(who: Who, viewpoint_id: str, picture_png: bytes, frame: PictureFrame | None) -> Viewpoint:
    """Give a viewpoint another picture of what it sees, widened or trimmed; the view stays."""
    with unit_of_work(who) as act:
        found = find(act, VIEWPOINT, viewpoint_id, hold=True)
        return _become(act, found, picture_png, replace(found.view, frame=frame))


def missing(viewpoint_id: str) -> list[str]:
    """What a viewpoint names that the building no longer has, in sentences."""
    with read_only() as look:
        found = find(look, VIEWPOINT, viewpoint_id)
        rows, traits = traits_of(look, found.project_id)
        issued = {model.id: model.added_at.date() for model in rows.models}
    return gone(found.view, lambda key, one: bool(traits.numbers_of(key, [one])), issued.get)


def rename(who: Who, viewpoint_id: str, name: str) -> Viewpoint:
    """Give a viewpoint another name."""
    with unit_of_work(who) as act:
        found = find(act, VIEWPOINT, viewpoint_id, hold=True)
        if not trimmed(name):
            raise WrongError("A viewpoint needs a name; type one.")
        found.name = trimmed(name)
        act.tell(found.project_id, "viewpoints", what=found.id)
        return found
