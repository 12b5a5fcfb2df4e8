"""Programs of others that people let act for them."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from stairpath.work.people.tokens import Scope

_Typed = Annotated[str, Field(max_length=2000)]


class NewProgram(BaseModel):
    """A program that may ask people to let it act for them, and the address where it takes their answer."""

    name: _Typed
    address: _Typed


class Program(NewProgram):
    """A program, with the id by which it asks."""

    model_config = ConfigDict(from_attributes=True)
    id: str
    made_by: str
    made_at: datetime


class ProgramAsks(BaseModel):
    """What a program asks with, as the address of the page has it (RFC 6749, 4.1.1; RFC 7636, 4.3)."""

    client_id: _Typed
    response_type: _Typed
    redirect_uri: _Typed
    scope: _Typed = ""
    state: _Typed = ""
    code_challenge: _Typed
    code_challenge_method: _Typed


class ProgramAsked(BaseModel):
    """What a program asks somebody for."""

    model_config = ConfigDict(from_attributes=True)
    name: str
    scope: Scope


class ProgramAnswer(ProgramAsks):
    """Whether somebody lets it."""

    allowed: bool


class ProgramAnswered(BaseModel):
    """Where the browser goes now."""

    address: str


class Granted(BaseModel):
    """What somebody lets a program do, and until when."""

    model_config = ConfigDict(from_attributes=True)
    id: str
    name: str
    scope: Scope
    made_at: datetime
    ends_at: datetime
