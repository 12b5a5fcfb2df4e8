"""What people who have a project open tell one another: typed events over one connection each."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field, TypeAdapter

from stairpath.api.schemas.common import Vector
from stairpath.core.review.eye import Eye
from stairpath.core.review.view import View

_Name = Annotated[str, Field(max_length=80)]
_Id = Annotated[str, Field(max_length=40)]


class Present(BaseModel):
    """To present from now on, or no more."""

    kind: Literal["present"]
    on: bool


class Hand(BaseModel):
    """To hand presenting over to somebody."""

    kind: Literal["hand"]
    to: _Id


class Follows(BaseModel):
    """Whether one follows who presents."""

    kind: Literal["follows"]
    on: bool


class Looks(BaseModel):
    """The presenter's eye, as it moves."""

    kind: Literal["looks"]
    eye: Eye
    through_m: Annotated[float, Field(ge=0, le=1e3)] = 0


class Sees(BaseModel):
    """All that the presenter sees, and what was done last, in words."""

    kind: Literal["sees"]
    view: View
    did: Annotated[str, Field(max_length=400)] = ""


class Points(BaseModel):
    """Where the presenter points, or nowhere."""

    kind: Literal["points"]
    at_m: Vector | None


class Did(BaseModel):
    """Something that somebody did, in words, for all to read."""

    kind: Literal["did"]
    text: Annotated[str, Field(max_length=400)]


Told = Annotated[Present | Hand | Follows | Looks | Sees | Points | Did, Field(discriminator="kind")]
TOLD: TypeAdapter[Told] = TypeAdapter(Told)


class Person(BaseModel):
    """Somebody who has the project open, with the initials and the colour that they chose."""

    id: str
    name: _Name
    follows: bool
    initials: str = ""
    colour: str = ""


class Here(BaseModel):
    """Who is there, who of them presents, and which of them one is oneself."""

    kind: Literal["here"] = "here"
    you: str
    presenter: str | None
    people: list[Person]
