"""Slowing down who tries passwords, by the name and by the address (ASVS 2.2.1), and who asks more than anybody needs."""

from __future__ import annotations

import math
import time
from collections.abc import Sequence

from limits import RateLimitItem, RateLimitItemPerHour, RateLimitItemPerMinute
from limits.storage import MemoryStorage
from limits.strategies import FixedWindowRateLimiter, MovingWindowRateLimiter

from stairpath.settings import settings
from stairpath.work.base.errors import TooOftenError

BY_NAME = RateLimitItemPerMinute(10, 15, namespace="name")
BY_ADDRESS = RateLimitItemPerMinute(60, 15, namespace="address")
"""So often within so many minutes; an office may share one address."""

NEW_PASSWORDS_BY_NAME = RateLimitItemPerHour(5, 1, namespace="new password by name")
NEW_PASSWORDS_BY_ADDRESS = RateLimitItemPerHour(30, 1, namespace="new password by address")
"""So often somebody may ask for a mail with a link, so that nobody's box is filled."""

_windows = MovingWindowRateLimiter(MemoryStorage())
_requests = FixedWindowRateLimiter(MemoryStorage())


def _of(name: str, address: str) -> list[tuple[RateLimitItem, str]]:
    return [(BY_NAME, name), (BY_ADDRESS, address)]


def count_try(name: str, address: str) -> None:
    """Count a try to sign in; raises TooOftenError where there were too many, whether they were good or not."""
    _count(_of(name, address), "There were too many tries to sign in.")


def count_asked(name: str, address: str) -> None:
    """Count a wish for a new password; raises TooOftenError where there were too many, whether there is such a person or not."""
    limits = [(NEW_PASSWORDS_BY_NAME, name), (NEW_PASSWORDS_BY_ADDRESS, address)]
    _count(limits, "A new password was asked for too often.")


def _count(counted: Sequence[tuple[RateLimitItem, str]], sentence: str) -> None:
    for limit, of in counted:
        if not _windows.hit(limit, of):
            wait_s = max(1, math.ceil(_windows.get_window_stats(limit, of).reset_time - time.time()))
            minutes = math.ceil(wait_s / 60)
            said = "a minute" if minutes == 1 else f"{minutes} minutes"
            raise TooOftenError(f"{sentence} Try again in {said}.", wait_s)


def count_request(whose: str) -> None:
    """Count a request of a person, a guest or a program; raises TooOftenError where there were too many within a minute."""
    limit = RateLimitItemPerMinute(settings().person_requests_per_minute, namespace="requests")
    if not _requests.hit(limit, whose):
        wait_s = max(1, math.ceil(_requests.get_window_stats(limit, whose).reset_time - time.time()))
        raise TooOftenError(f"You asked for too much within a minute. Wait {wait_s} s and go on.", wait_s)


def forget(name: str) -> None:
    """Forget the tries of a name, as after a good one; those of an address count on."""
    _windows.clear(BY_NAME, name)
