"""Who may what: the one place that decides whether something that is asked for is done."""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping
from dataclasses import dataclass, replace
from typing import Any

from stairpath.core.exchange.bcf.markup import guid_of
from stairpath.core.people.roles import LEAST, Action, Role, Tie, at_most, highest, may, may_some, refusal
from stairpath.core.review.given import given_to
from stairpath.store import members, record
from stairpath.store.access import Asked, ThingRow
from stairpath.store.tables import (
    ComponentSet,
    Folder,
    Meeting,
    MeetingPoint,
    Model,
    SavedRoute,
    Task,
    Topic,
    TopicFile,
    TopicNote,
    Viewpoint,
)
from stairpath.work.base.errors import MissingError, NotAllowedError, NotSignedInError
from stairpath.work.base.unit_of_work import UnitOfWork, Where, Who, read_only, unit_of_work
from stairpath.work.people import sign_ins, slow_down
from stairpath.work.people.sign_ins import ASK_FIRST, Signed

NO_TOKEN = "This token is not valid, or has ended. Make a new one on the page for tokens."
_OF_A_PERSON = (Action.OWN_TOKENS, Action.OWN_SIGN_IN)
"""What everybody who signs in with a password may, and no guest or program."""
NO_PROJECT = "There is no such project; open it from the start page."


def _as_it_is(text: str) -> str:
    return text


def _made(held: Mapping[str, Any], who: Who) -> set[Tie]:
    return who.ties(held["author"])


def _of_topic(held: Mapping[str, Any], who: Who) -> set[Tie]:
    return who.ties(held["author"], given_to(held["said"], held["question"]))


def _nothing(held: Mapping[str, Any], who: Who) -> set[Tie]:
    return set()


@dataclass(frozen=True)
class _Named:
    """How a word in an address names a thing, and what of its row ties whom to it."""

    row: ThingRow
    noun: str
    ties: Callable[[Mapping[str, Any], Who], set[Tie]] = _nothing
    read: Callable[[str], str] = _as_it_is


_TOPIC_ROW, _BY_TOPIC = ("author", "said", "question"), (Topic, "topic_id")
_NAMED = {
    "comment_guid": _Named(ThingRow(TopicNote, "guid", _BY_TOPIC, ("author",)), "comment", _made, guid_of),
    "view_guid": _Named(ThingRow(Viewpoint, "guid", held=("author",)), "viewpoint", _made, guid_of),
    "guid": _Named(ThingRow(Topic, "guid", held=_TOPIC_ROW), "topic", _of_topic, guid_of),
    "file_id": _Named(ThingRow(TopicFile, part_of=_BY_TOPIC, held=("author",)), "file", _made),
    "topic_id": _Named(ThingRow(Topic, held=_TOPIC_ROW), "topic", _of_topic),
    "viewpoint_id": _Named(ThingRow(Viewpoint, held=("author",)), "viewpoint", _made),
    "model_id": _Named(ThingRow(Model), "model"),
    "folder_id": _Named(ThingRow(Folder), "folder"),
    "set_id": _Named(ThingRow(ComponentSet), "set"),
    "route_id": _Named(ThingRow(SavedRoute), "route"),
    "task_id": _Named(ThingRow(Task), "check or sheet"),
    "point_id": _Named(ThingRow(MeetingPoint, part_of=(Meeting, "meeting_id")), "note"),
    "meeting_id": _Named(ThingRow(Meeting), "meeting"),
}
"""The words, the most exact first: a comment before its topic."""


@dataclass(frozen=True)
class LetIn:
    """Who was let in; and for what is in a project, which, and with which role."""

    signed: Signed | None
    who: Who | None = None
    """None where nobody signs in: whoever asks says who they are."""
    project_id: str | None = None
    role: Role = "own"


def let_in(
    secret: str, action: Action | None, named: Mapping[str, str], where: Where = Where(), bearer: bool = False
) -> LetIn:
    """Let somebody do something, by what their browser keeps and by the words in the address that name things.

    ``bearer`` is for a secret that came in the head of a request: a token comes so, and what a browser keeps does not.

    Raises NotSignedInError for who has to sign in, NotAllowedError for what one may not, and MissingError, as if it
    did not exist, for what is in a project that one is not in. What has no action nobody may do.
    """
    if action is Action.ANYTHING_OPEN and not secret:
        return LetIn(None)  # nothing is asked of the database, which may be away
    word = next((each for each in _NAMED if each in named), None) if action in LEAST else None
    way = None if word is None else _NAMED[word]
    found = None
    if secret:
        found = sign_ins.asked(
            secret, named.get("project_id"), way.row if way else None, way.read(named[word]) if way and word else ""
        )
    if found is not None and bearer != (found.scope is not None):
        found = None
    signed = None if found is None else sign_ins.signed_as(found)
    if found is not None and found.token:
        where = replace(where, token=found.token)
    if action is Action.ANYTHING_OPEN:
        return LetIn(signed, None if signed is None else _who(signed, where))
    if signed is None or found is None:
        if action in (Action.RUN_SERVER, *_OF_A_PERSON) or sign_ins.anybody():
            raise NotSignedInError(NO_TOKEN if bearer else ASK_FIRST)
        return LetIn(None)
    slow_down.count_request(signed.id)
    who = _who(signed, where)
    try:
        return _judged(signed, who, action, found, way, "project_id" in named)
    except NotAllowedError:
        with unit_of_work(who) as act:
            record.note(act.session, record.SERVER, "was refused", "action", found.project_id or "", action or "")
        raise


def _who(signed: Signed, where: Where) -> Who:
    return Who(signed.name, person_id=None if signed.guest_of else signed.id, where=where)


def _judged(
    signed: Signed, who: Who, action: Action | None, found: Asked, way: _Named | None, in_project: bool
) -> LetIn:
    if action is None:
        raise NotAllowedError("Nobody may do that here.")
    if action not in LEAST:
        _check_server(signed, action)
        return LetIn(signed, who)
    return _into_project(signed, who, action, found, way, in_project)


def _check_server(signed: Signed, action: Action) -> None:
    """What is done outside projects. A program with a token, and a guest, do nothing there but what all may."""
    person = signed.guest_of is None and signed.scope is None
    if action is Action.OWN_ACCOUNT or (person and (signed.owner or action in _OF_A_PERSON)):
        return
    if action is Action.MAKE_PROJECTS and person and signed.makes_projects:
        return
    if not person:
        raise NotAllowedError("Only a person who signs in with a password may do that.")
    raise NotAllowedError(f"Only those who own the server {action}. Ask one of them.")


def _role(signed: Signed, project_id: str | None, roles: Collection[str]) -> Role | None:
    """What somebody may in a project, by their roles there; None for who is not in it."""
    if signed.guest_of is not None:
        return "look" if signed.guest_of == project_id else None
    role = highest(roles)
    return None if role is None else at_most(role, signed.scope)


def _into_project(
    signed: Signed, who: Who, action: Action, found: Asked, way: _Named | None, in_project: bool
) -> LetIn:
    role = _role(signed, found.project_id, found.roles)
    if role is None or found.project_id is None:
        noun = None if in_project or way is None else way.noun
        raise MissingError(
            f"There is no such {noun}. It may have been made in another project." if noun else NO_PROJECT
        )
    if way is not None and found.held is None:
        # Of what is not there nobody can say whose it is; that it is not there is said by who looks for it.
        allowed = may_some(role, action)
    else:
        allowed = may(role, action, way.ties(found.held or {}, who) if way else ())
    if not allowed:
        raise NotAllowedError(refusal(role, action))
    return LetIn(signed, replace(who, role=role), found.project_id, role)


def still_may(act: UnitOfWork, person_id: str | None, project_id: str, action: Action) -> bool:
    """Whether a job may do something for who asked for it; where nobody signs in it may."""
    if person_id is None:
        return True
    roles = members.roles(act.session, [(person_id, project_id)]).get((person_id, project_id), ())
    role = highest(roles)
    return role is not None and may(role, action)


def mine(signed: Signed | None) -> dict[str, Role] | None:
    """The projects that somebody is in, with their role in each; None for all, where nobody signs in."""
    if signed is None:
        return None
    if signed.guest_of is not None:
        return {signed.guest_of: "look"}
    with read_only() as look:
        found = members.projects_of(look.session, signed.id)
    return {key: role for key, roles in found.items() if (role := _role(signed, key, roles)) is not None}


def still(wanted: Collection[tuple[str, str]]) -> dict[tuple[str, str], Role | None]:
    """What sign-ins may now, for pairs of a secret and a project; None for one that has ended or is out of the project.

    While nobody signs in it is "own" for all.
    """
    with read_only() as look:
        held = sign_ins.that_hold(look, {secret for secret, _ in wanted if secret})
        pairs = {(held[s].id, p) for s, p in wanted if s in held and held[s].guest_of is None}
        roles = members.roles(look.session, pairs)
    nobody = not sign_ins.anybody()
    out: dict[tuple[str, str], Role | None] = {}
    for secret, project_id in wanted:
        signed = held.get(secret)
        if signed is None:
            out[secret, project_id] = "own" if nobody else None
        else:
            out[secret, project_id] = _role(signed, project_id, roles.get((signed.id, project_id), ()))
    return out
