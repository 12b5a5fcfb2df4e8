"""How long the soak is: short within the whole run, long by itself (`make soak`)."""

from __future__ import annotations

import os
from typing import TypeVar

T = TypeVar("T")

LONG = os.environ.get("SOAK") == "long"
SEED = int(os.environ.get("SOAK_SEED", "20261126"))


def length(short: T, long: T) -> T:
    """One of two, by how long the soak is."""
    return long if LONG else short
