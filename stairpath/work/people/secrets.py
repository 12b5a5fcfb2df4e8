"""Secrets: passwords as they are kept, and what links and browsers carry."""

from __future__ import annotations

import hashlib
import secrets
from functools import cache

from pwdlib import PasswordHash
from pwdlib.hashers.argon2 import Argon2Hasher

_SECRET_BYTES = 32
"""256 random bits; ASVS 3.2.2 asks for 64."""


_PASSES, _MEMORY_KIB = 2, 64 << 10
"""More than the least that OWASP asks of Argon2id (46 MiB and one pass); at most 300 ms of a core."""


@cache
def _hasher() -> PasswordHash:
    return PasswordHash((Argon2Hasher(time_cost=_PASSES, memory_cost=_MEMORY_KIB, parallelism=1),))


@cache
def _nobodys() -> str:
    """The hash of a password that nobody has."""
    return _hasher().hash(secrets.token_urlsafe())


def hashed(password: str) -> str:
    """A password as it is kept: Argon2id with its salt (RFC 9106)."""
    return _hasher().hash(password)


def matches(password: str, kept: str | None) -> tuple[bool, str | None]:
    """Whether a password is the kept one, and its hash anew where that is made otherwise now.

    It takes as long where none is kept, so that nobody learns from the time who there is.
    """
    good, anew = _hasher().verify_and_update(password, kept or _nobodys())
    return (good, anew) if kept else (False, None)


def new_secret() -> str:
    """What a link or a browser carries."""
    return secrets.token_urlsafe(_SECRET_BYTES)


def fingerprint(secret: str) -> str:
    """A secret as it is kept. It is random, so one quick hash of it is enough."""
    return hashlib.sha256(secret.encode()).hexdigest()
