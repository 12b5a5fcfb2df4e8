"""Dates in words."""

from __future__ import annotations

from datetime import date


def spoken(day: date) -> str:
    """A date as it is written out.

    >>> spoken(date(2026, 3, 6))
    '6 March 2026'
    """
    return f"{day.day} {day:%B %Y}"
