"""Guest links: people without an account look at one project, until a day. Each is named, listed, and ended there."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

from stairpath.core.people.naming import NotANameError, name_of
from stairpath.store import members, record
from stairpath.store.person_tables import GuestLink
from stairpath.work.base.errors import GoneError, MissingError, UnfitError, WrongError
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import Where, Who, read_only, unit_of_work
from stairpath.work.people.secrets import fingerprint, new_secret
from stairpath.work.people.sign_ins import begin_guest

LONGEST_DAYS = 366
ENDED = "This link has ended. Ask who sent it to you for a new one."


@dataclass(frozen=True)
class Shown:
    """What a guest link opens: the project's name, what the guest is called there, and until when."""

    project_id: str
    project: str
    name: str
    ends_at: datetime


def listed(project_id: str) -> list[GuestLink]:
    """The guest links of a project that have not ended, the newest first."""
    with read_only() as look:
        in_use(look, project_id)
        return list(members.guest_links(look.session, project_id, datetime.now(UTC)))


def make(who: Who, project_id: str, name: str, days: int) -> tuple[GuestLink, str]:
    """Make a guest link for some days; its secret is told this once."""
    try:
        called = name_of(name)
    except NotANameError as error:
        raise WrongError(f"A guest link needs a name, such as whom it is for. {error}") from error
    if who.person_id is None:
        raise UnfitError("Nobody signs in on this server yet, so everybody who reaches it may look.")
    if not 1 <= days <= LONGEST_DAYS:
        raise WrongError(f"A guest link lasts 1 to {LONGEST_DAYS} days. Change the number of days.")
    with unit_of_work(who) as act:
        project, secret = in_use(act, project_id), new_secret()
        row = GuestLink(
            project_id=project.id, name=called, secret_hash=fingerprint(secret), made_by=who.said,
            ends_at=datetime.now(UTC) + timedelta(days=days),
        )  # fmt: skip
        members.add_guest_link(act.session, row)
        act.tell(project.id, "members")
        return row, secret


def end(who: Who, project_id: str, link_id: str) -> None:
    """End a guest link: who looks by it is out within two seconds."""
    with unit_of_work(who) as act:
        row = members.guest_link(act.session, project_id, link_id)
        if row is None:
            raise MissingError("There is no such link any more. Look at the list again.")
        members.end_guest_link(act.session, row)
        act.tell(project_id, "members")


def look_at(secret: str) -> Shown | None:
    """What a guest link opens; None where there is none, or it has ended."""
    with read_only() as look:
        row = members.guest_link_by_hash(look.session, fingerprint(secret), datetime.now(UTC))
        project = None if row is None else look.project(row.project_id)
        if row is None or project is None or project.removed_at is not None:
            return None
        return Shown(project.id, project.name, row.name, row.ends_at)


def enter(secret: str, where: Where) -> tuple[str, Shown]:
    """Look at a project by a guest link: what the browser keeps, and what it opens. Raises GoneError after its end."""
    shown = look_at(secret)
    if shown is None:
        raise GoneError(ENDED)
    with unit_of_work(Who(shown.name, where=where)) as act:
        row = members.guest_link_by_hash(act.session, fingerprint(secret), datetime.now(UTC))
        if row is None:
            raise GoneError(ENDED)
        row.used_at = datetime.now(UTC)
        record.note(act.session, row.project_id, "came by a guest link", "guest_link", row.id, row.name)
        return begin_guest(act, row, where), shown
