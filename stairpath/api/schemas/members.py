"""Who is in a project, and guest links."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from stairpath.core.people.roles import Action, Role
from stairpath.work.people.project_members import MemberKind

_Typed = Annotated[str, Field(max_length=400)]


class Mine(BaseModel):
    """What one may in a project: the role, in words too, and whether one looks by a guest link.

    ``may`` is done to anything, ``may_made`` to what one made, ``may_given`` to what was given to one.
    """

    role: Role
    said: str
    guest: bool
    may: list[Action]
    may_made: list[Action]
    may_given: list[Action]


class Member(BaseModel):
    """A person, all of a firm, or all of a discipline in a project; ``key`` is the name that a person signs in with.

    ``begun`` says whether a person has set a password yet.
    """

    model_config = ConfigDict(from_attributes=True)
    id: str
    kind: MemberKind
    name: str
    role: Role
    added_by: str
    added_at: datetime
    key: str
    firm: str
    discipline: str
    begun: bool
    you: bool


class NewMember(BaseModel):
    """Whom to have in a project: a person by what they sign in with (and their name, to invite them), a firm by its name, or a
    discipline by its code.
    """

    kind: MemberKind
    named: _Typed
    role: Role
    name: _Typed = ""


class NewRole(BaseModel):
    role: Role


class AddedMember(BaseModel):
    """Who is in the project now; for a person who is new, what a link to /welcome carries after #, told this once."""

    member: Member
    secret: str | None


class GuestLink(BaseModel):
    """A link with which people without an account look at a project, what they are called there, and until when."""

    model_config = ConfigDict(from_attributes=True)
    id: str
    name: str
    made_by: str
    made_at: datetime
    ends_at: datetime
    used_at: datetime | None


class NewGuestLink(BaseModel):
    """For whom a guest link is, and how many days it lasts."""

    name: _Typed
    days: int = Field(ge=-1000, le=10_000)


class MadeGuestLink(BaseModel):
    """A guest link, and what a link to /guest carries after #, told this once."""

    link: GuestLink
    secret: str


class GuestShown(BaseModel):
    """What a guest link opens: the project's id and name, what the guest is called there, and until when."""

    model_config = ConfigDict(from_attributes=True)
    project_id: str
    project: str
    name: str
    ends_at: datetime


class Someone(BaseModel):
    """Somebody of a project."""

    model_config = ConfigDict(from_attributes=True)
    id: str
    name: str


class MatchedName(BaseModel):
    """A name that came with a file, and what the person that it is of is called."""

    model_config = ConfigDict(from_attributes=True)
    name: str
    is_: str


class NamesShown(BaseModel):
    """The names of a project that nobody here has, what was said of others, and who of the project may be meant."""

    model_config = ConfigDict(from_attributes=True)
    unknown: list[str]
    matched: list[MatchedName]
    people: list[Someone]


class NameGiven(BaseModel):
    """A name as a file says it."""

    name: Annotated[str, Field(max_length=400)]


class NameMatch(NameGiven):
    """Who is meant by a name."""

    person_id: str
