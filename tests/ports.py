"""Ports on loopback for what the tests start."""

from __future__ import annotations

import itertools

from stairpath.start.postgres import is_free
from tests.database import run_beside

# Runs that go on side by side have ports of their own, and none is given twice.
_OWN = itertools.count(20_000 + 1000 * run_beside())


def port_of_own() -> int:
    """A port that nobody listens on, and that no other test is given."""
    return next(port for port in _OWN if is_free(port))
