"""People who sign in."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from stairpath.work.people.links import LinkKind
from stairpath.work.people.tokens import Scope

_Typed = Annotated[str, Field(max_length=400)]
_Secret = Annotated[str, Field(min_length=1, max_length=200)]


class SignedPerson(BaseModel):
    """Somebody who is signed in; ``key`` is the name that they sign in with. A guest looks at one project by a link."""

    model_config = ConfigDict(from_attributes=True)
    name: str
    key: str
    firm: str
    discipline: str
    owner: bool
    makes_projects: bool
    guest_of: str | None
    initials: str
    colour: str
    units: str
    language: str


class ListedPerson(BaseModel):
    """Somebody who may sign in, whether they have set a password and a second factor, and when they were seen last."""

    id: str
    person: SignedPerson
    begun: bool
    second_factor: bool
    seen_at: datetime | None


class NewPerson(BaseModel):
    """Somebody who is to be able to sign in; ``key`` is the name that they sign in with."""

    key: _Typed
    name: _Typed
    owner: bool = False


class PersonWish(BaseModel):
    """What is said of somebody, and what they may on this server."""

    name: _Typed
    firm: _Typed
    discipline: _Typed
    owner: bool
    makes_projects: bool


class PersonKey(BaseModel):
    """The name that somebody signs in with."""

    key: _Typed


class LinkToHandOn(BaseModel):
    """What a link to /welcome carries after #, for one person; it is good once, for a week. None where it was mailed."""

    secret: str | None


class DemoPerson(BaseModel):
    """Somebody whom a visitor of the demo can be, and what they are there."""

    model_config = ConfigDict(from_attributes=True)
    key: str
    name: str
    says: str


class Me(BaseModel):
    """Who asks, whether one has to sign in here, and in the demo whom one can be."""

    person: SignedPerson | None
    closed: bool
    elsewhere: str
    """What the provider of accounts is called by which one can sign in; empty where there is none."""
    mailbox: bool
    """Whether mails are not sent, and who asks may look at them in the mailbox."""
    demo: list[DemoPerson]


class SigningInRequest(BaseModel):
    """The name that somebody signs in with, and their password."""

    name: _Typed
    password: _Typed
    code: _Typed = ""


class SigningIn(BaseModel):
    """Who is signed in now; nobody yet where a code of the second factor is asked for too."""

    person: SignedPerson | None
    asks_code: bool


class ElsewhereWish(BaseModel):
    """The page that one came for."""

    back_to: _Typed = "/"


class ElsewhereBegun(BaseModel):
    """Where the browser goes now."""

    model_config = ConfigDict(from_attributes=True)
    address: str


class ElsewhereBack(BaseModel):
    """What the provider of accounts sent along."""

    code: Annotated[str, Field(max_length=4000)]
    state: _Typed


class ElsewhereSigned(BaseModel):
    """Who is signed in now, and the page that they came for."""

    person: SignedPerson
    back_to: str


class LinkRequest(BaseModel):
    """What a link carries."""

    secret: _Secret


class LinkShown(BaseModel):
    """What a link is for, and to whom it was given; nobody yet for the first owner."""

    model_config = ConfigDict(from_attributes=True)
    kind: LinkKind
    name: str
    key: str
    asks_code: bool


class LinkUsed(LinkRequest):
    """The password that is set by a link; the first owner says by which names too."""

    password: _Typed
    key: _Typed = ""
    name: _Typed = ""
    code: _Typed = ""


class Token(BaseModel):
    """A token of another program: how far it goes, until when, and when it was used last."""

    model_config = ConfigDict(from_attributes=True)
    id: str
    name: str
    scope: Scope
    made_at: datetime
    ends_at: datetime
    used_at: datetime | None


class NewToken(BaseModel):
    """What a token is called, how far it goes, and how many days it lasts."""

    name: _Typed
    scope: Scope
    days: int = Field(ge=-1000, le=10_000)


class MadeToken(BaseModel):
    """A token, and what a program sends as ``Authorization: Bearer``, told this once."""

    token: Token
    secret: str
