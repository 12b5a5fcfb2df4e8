"""The second factor: codes that change with time (RFC 6238, by pyotp), and recovery codes for who has lost their device."""

from __future__ import annotations

import re
import secrets

import pyotp

STEP_S = 30
_LATE_STEPS = 1
"""A code is taken for so many steps after and before its own: clocks differ, and people type slowly (RFC 6238, 5.2)."""
RECOVERY_CODES = 10
_LETTERS = "abcdefghjkmnpqrstuvwxyz23456789"
"""Without letters that look alike."""
_GROUPS, _GROUP = 4, 4
_CODE = re.compile("[0-9]{6}")
ISSUER = "Stair Path"


def new_secret() -> str:
    """A new secret of 160 bits, in base 32 (RFC 4226, 4)."""
    return pyotp.random_base32()


def address(secret: str, key: str) -> str:
    """The address that an authenticator takes in, as a picture of dots shows it (the ``otpauth`` key URI)."""
    return pyotp.TOTP(secret, interval=STEP_S).provisioning_uri(name=key, issuer_name=ISSUER)


def step_of(secret: str, code: str, now_s: float, last_step: int) -> int | None:
    """The step of time that a code is for; None for one that is wrong, too old, or not later than one used before.

    Each code is good once (RFC 6238, 5.2; ASVS 2.8.4).
    """
    typed = code.replace(" ", "")
    if not _CODE.fullmatch(typed):
        return None
    made, here = pyotp.TOTP(secret, interval=STEP_S), int(now_s // STEP_S)
    for step in range(here - _LATE_STEPS, here + _LATE_STEPS + 1):
        if step > last_step and secrets.compare_digest(made.generate_otp(step), typed):
            return step
    return None


def new_recovery_codes() -> list[str]:
    """Codes that are good once each, of 79 random bits (ASVS 2.6.2 asks for 20)."""
    return [
        "-".join("".join(secrets.choice(_LETTERS) for _ in range(_GROUP)) for _ in range(_GROUPS))
        for _ in range(RECOVERY_CODES)
    ]


def recovery_code(text: str) -> str:
    """A recovery code as it is compared, however it was typed.

    >>> recovery_code(" ABCD efgh-jkmn-pqrs ")
    'abcdefghjkmnpqrs'
    """
    return re.sub(r"[\s-]", "", text).casefold()
