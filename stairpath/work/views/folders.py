"""Folders of viewpoints: making, naming, ordering, putting into one another, and moving viewpoints into them."""

from __future__ import annotations

from collections.abc import Sequence

from stairpath.core.review.order import moved
from stairpath.core.texts import trimmed
from stairpath.store import kept
from stairpath.store.tables import Folder
from stairpath.work.base.errors import WrongError
from stairpath.work.base.lookup import FOLDER, VIEWPOINT, all_within, find
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import Who, read_only, unit_of_work


def listed(project_id: str) -> list[Folder]:
    """The project's folders, in the order that somebody gave them."""
    with read_only() as look:
        return kept.folders(look.session, in_use(look, project_id).id)


def _named(name: str) -> str:
    if not trimmed(name):
        raise WrongError("A folder needs a name; type one.")
    return trimmed(name)


def make(who: Who, project_id: str, name: str, within: str | None = None) -> Folder:
    """Make a folder, after those that there are, in another one or in none."""
    with unit_of_work(who) as act:
        project = in_use(act, project_id, hold=True)
        last = max((folder.place for folder in kept.folders(act.session, project.id)), default=-1)
        if within is not None:
            find(act, FOLDER, within, within=project.id)
        row = Folder(project_id=project.id, name=_named(name), author=who.said, place=last + 1, within=within)
        kept.add(act.session, row)
        act.tell(project.id, "viewpoints", what=row.id)
        return row


def rename(who: Who, folder_id: str, name: str) -> Folder:
    """Give a folder another name."""
    with unit_of_work(who) as act:
        found = find(act, FOLDER, folder_id, hold=True)
        found.name = _named(name)
        act.tell(found.project_id, "viewpoints", what=found.id)
        return found


def put_before(who: Who, folder_id: str, before: str | None) -> None:
    """Put a folder before another one of its project, or last."""
    with unit_of_work(who) as act:
        folder = find(act, FOLDER, folder_id, hold=True)
        in_use(act, folder.project_id, hold=True)
        all_ = {each.id: each for each in kept.folders(act.session, folder.project_id)}
        for place, key in enumerate(moved(list(all_), [folder.id], before)):
            all_[key].place = place
        act.tell(folder.project_id, "viewpoints", what=folder.id)


def put_into(who: Who, folder_id: str, within: str | None) -> Folder:
    """Put a folder into another one of its project, or out of any; never into itself or one that stands in it."""
    with unit_of_work(who) as act:
        folder = find(act, FOLDER, folder_id, hold=True)
        # Held, so that two who put folders into one another make no circle.
        in_use(act, folder.project_id, hold=True)
        act.session.refresh(folder)
        around = None if within is None else find(act, FOLDER, within, within=folder.project_id)
        above = around
        while above is not None:
            if above.id == folder.id:
                raise WrongError(
                    f"{folder.name} can't stand in itself or in a folder that stands in it. Choose another."
                )
            above = None if above.within is None else find(act, FOLDER, above.within, removed=True)
        folder.within = within
        act.tell(folder.project_id, "viewpoints", what=folder.id)
        return folder


def move(who: Who, project_id: str, views: Sequence[str], folder_id: str | None, before: str | None) -> None:
    """Move viewpoints into a folder, before one that is in it or last; or out of any folder, where none is named."""
    with unit_of_work(who) as act:
        # Held, so that two who order the same folder do not mix their orders.
        project = in_use(act, project_id, hold=True)
        folder = None if folder_id is None else find(act, FOLDER, folder_id, within=project.id)
        these = [find(act, VIEWPOINT, key) for key in all_within(act, VIEWPOINT, views, project.id)]
        for view in these:
            view.folder = None if folder is None else folder.id
        if folder is not None:
            act.session.flush()
            inside = {view.id: view for view in kept.viewpoints_in(act.session, folder.id)}
            order = [key for key in inside if key not in views]
            for place, key in enumerate(moved(order, [view.id for view in these], before)):
                inside[key].place = place
        act.tell(project.id, "viewpoints")
