"""What somebody sets of themselves."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

_Typed = Annotated[str, Field(max_length=400)]


class Account(BaseModel):
    """Somebody as they see themselves; ``recovery_left`` are recovery codes that were not used."""

    model_config = ConfigDict(from_attributes=True)
    name: str
    key: str
    firm: str
    discipline: str
    initials: str
    colour: str
    units: str
    language: str
    has_password: bool
    second_factor: bool
    recovery_left: int


class AccountWish(BaseModel):
    """What somebody sets of themselves; empty for what goes by the name or the browser."""

    initials: _Typed
    colour: _Typed
    units: _Typed
    language: _Typed = ""


class PasswordWish(BaseModel):
    """The password until now, and the one from now on."""

    old: _Typed
    new: _Typed


class PasswordGiven(BaseModel):
    """The password of who asks, again."""

    password: _Typed


class CodeGiven(BaseModel):
    """A code that an authenticator shows."""

    code: _Typed


class SecondFactorBegun(BaseModel):
    """What an authenticator takes in: the secret, its address, and that as a picture of dots."""

    model_config = ConfigDict(from_attributes=True)
    secret: str
    address: str
    picture: str


class RecoveryCodes(BaseModel):
    """Codes that are good once each, told this once."""

    codes: list[str]


class Mail(BaseModel):
    """A mail that was not sent; its text is told only where no server for mail is set."""

    model_config = ConfigDict(from_attributes=True)
    id: str
    to: str
    subject: str
    text: str
    made_at: datetime
    trouble: str
