"""Why something is not done, in one sentence that says what to do."""

from __future__ import annotations


class RefusedError(Exception):
    """Something that is asked for is not done; the message is one sentence for the user."""


class MissingError(RefusedError):
    """It does not exist."""


class GoneError(RefusedError):
    """What it is about was there and was deleted."""


class UnfitError(RefusedError):
    """The current state does not allow this."""


class StaleError(RefusedError):
    """Somebody changed it since it was read."""


class WrongError(RefusedError):
    """What was given cannot be."""


class NotSignedInError(RefusedError):
    """Who asks is not known."""


class NotAllowedError(RefusedError):
    """Who asks may not do that."""


class TooOftenError(RefusedError):
    """It was tried too often; ``wait_s`` says after how many seconds it may be tried again."""

    def __init__(self, message: str, wait_s: int) -> None:
        super().__init__(message)
        self.wait_s = wait_s


class TooLargeError(RefusedError):
    """What was given is more than is taken."""
