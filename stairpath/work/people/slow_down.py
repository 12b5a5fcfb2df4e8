"""Slowing down who tries passwords, by the name that is tried and by the address that tries (ASVS 2.2.1)."""

from __future__ import annotations

import math
import time

from limits import RateLimitItem, RateLimitItemPerMinute
from limits.storage import MemoryStorage
from limits.strategies import MovingWindowRateLimiter

from stairpath.work.base.errors import TooOftenError

BY_NAME = RateLimitItemPerMinute(10, 15, namespace="name")
BY_ADDRESS = RateLimitItemPerMinute(60, 15, namespace="address")
"""So often within so many minutes; an office may share one address."""

_windows = MovingWindowRateLimiter(MemoryStorage())


def _of(name: str, address: str) -> list[tuple[RateLimitItem, str]]:
    return [(BY_NAME, name), (BY_ADDRESS, address)]


def count_try(name: str, address: str) -> None:
    """Count a try to sign in; raises TooOftenError where there were too many, whether they were good or not."""
    for limit, of in _of(name, address):
        if not _windows.hit(limit, of):
            wait_s = max(1, math.ceil(_windows.get_window_stats(limit, of).reset_time - time.time()))
            minutes = math.ceil(wait_s / 60)
            said = "a minute" if minutes == 1 else f"{minutes} minutes"
            raise TooOftenError(f"There were too many tries to sign in. Try again in {said}.", wait_s)


def forget(name: str) -> None:
    """Forget the tries of a name, as after a good one; those of an address count on."""
    _windows.clear(BY_NAME, name)
