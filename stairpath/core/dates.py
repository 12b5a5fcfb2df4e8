"""Dates in words, and the years that are kept."""

from __future__ import annotations

from datetime import UTC, date, datetime

EARLIEST, LATEST = date(1900, 1, 1), date(2200, 12, 31)
"""Days and times outside of these are taken for mistakes wherever they come in."""


class NotADayError(ValueError):
    """A day or a time that is not kept; the message says what to do."""


def spoken(day: date) -> str:
    """A date as it is written out.

    >>> spoken(date(2026, 3, 6))
    '6 March 2026'
    """
    return f"{day.day} {day:%B %Y}"


def kept_day(day: date, what: str = "date") -> date:
    """The day itself; NotADayError outside of 1900 to 2200.

    >>> kept_day(date(2026, 3, 6))
    datetime.date(2026, 3, 6)
    """
    if not EARLIEST <= day <= LATEST:
        raise NotADayError(
            f"The {what} {day.isoformat()} is outside the years {EARLIEST.year} to {LATEST.year}. Correct it."
        )
    return day


def kept_time(at: datetime, what: str = "time") -> datetime:
    """A time in UTC, which a time without a zone is taken for; NotADayError outside of 1900 to 2200.

    >>> kept_time(datetime(2026, 3, 6, 12)).isoformat()
    '2026-03-06T12:00:00+00:00'
    """
    try:
        there = at.astimezone(UTC) if at.tzinfo else at.replace(tzinfo=UTC)
    except OverflowError:
        there = datetime.min.replace(tzinfo=UTC)
    kept_day(there.date(), what)
    return there
