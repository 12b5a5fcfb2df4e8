"""Names of people as things say them: who is meant by one that came with a file, and somebody's new name everywhere."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from stairpath.core.people.renaming import FORMER, name_key
from stairpath.store import members, names, people, projects, record
from stairpath.work.base.errors import MissingError, UnfitError
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import UnitOfWork, Who, read_only, unit_of_work
from stairpath.work.topics.people import known


@dataclass(frozen=True)
class Someone:
    """Somebody who signs in."""

    id: str
    name: str


@dataclass(frozen=True)
class Matched:
    """A name that came with a file, and who that is."""

    name: str
    is_: str


@dataclass(frozen=True)
class NamesShown:
    """The names of a project that nobody here has, what was said of others, and who of the project may be meant."""

    unknown: list[str]
    matched: list[Matched]
    people: list[Someone]


def shown(project_id: str) -> NamesShown:
    """The names in a project of which it is not known whose they are, and those of which somebody said it."""
    with read_only() as look:
        in_use(look, project_id)
        everybody = {name_key(name) for _, name in people.names(look.session)} | {name_key(FORMER)}
        unknown = [name for name in known(look, project_id) if name_key(name) not in everybody]
        there = [Someone(each.id, each.name) for each in members.persons_in(look.session, project_id)]
        matched = [Matched(name, is_) for name, is_ in names.remembered(look.session, project_id)]
    return NamesShown(sorted(unknown, key=str.casefold), matched, there)


def match(who: Who, project_id: str, name: str, person_id: str) -> None:
    """Say who is meant by a name in a project: it is replaced there, and in files of topics that come in from now on."""
    with unit_of_work(who) as act:
        in_use(act, project_id)
        person = next((p for p in members.persons_in(act.session, project_id) if p.id == person_id), None)
        if person is None:
            raise MissingError("That person is not in this project. Add them first.")
        key = name_key(name)
        if not key or any(name_key(other) == key for _, other in people.names(act.session)):
            raise UnfitError("This is the name of somebody who signs in. Choose a name that nobody here has.")
        names.remember(act.session, project_id, " ".join(name.split()), person.id, who.said)
        names.rename(act.session, name, person.name, project_id)
        record.note(act.session, project_id, f"said that {name} is", "person", person.id, person.name)
        tell(act, project_id)


def unmatch(who: Who, project_id: str, name: str) -> None:
    """Take files of topics that come in from now on at their word again; what was replaced stays."""
    with unit_of_work(who) as act:
        in_use(act, project_id)
        names.forget(act.session, project_id, name_key(name))
        tell(act, project_id)


def tell(act: UnitOfWork, project_id: str) -> None:
    """Tell who has a project open that names in it are others."""
    act.tell(project_id, "topics", "meetings", "viewpoints", "members")


def in_all_projects(act: UnitOfWork, old: str, new: str) -> None:
    """Call somebody by their new name in all projects."""
    names.rename(act.session, old, new)
    for project_id in projects.ids(act.session):
        tell(act, project_id)


def as_known(act: UnitOfWork, project_id: str) -> Callable[[str], str]:
    """What tells the name of who is meant by one that a file says in a project."""
    found = names.known_names(act.session, project_id)
    return lambda name: found.get(name_key(name), name)
