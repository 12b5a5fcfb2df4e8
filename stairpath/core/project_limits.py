"""How much a project may hold, and the sentences for what would be more."""

from __future__ import annotations

from dataclasses import dataclass

from stairpath.core.reading.intake import Limits, megabytes

_ASK = "ask who runs the server for a higher limit"


@dataclass(frozen=True)
class ProjectLimits:
    """The most that a project may hold: a file as it arrives and unpacked, all that is kept, components, and work at once."""

    file_mb: int
    unpacked_mb: int
    storage_mb: int
    components: int
    tasks: int

    @property
    def intake(self) -> Limits:
        """How large a file may be."""
        return Limits(self.file_mb << 20, self.unpacked_mb << 20)


@dataclass(frozen=True)
class Used:
    """What a project holds: bytes that are kept, components of its models, and checks, sheets and imports not yet done."""

    storage_bytes: int
    components: int
    tasks: int


class OverLimitError(ValueError):
    """It would be more than a project may hold; the message says what to do."""


def check_room(name: str, size_bytes: int, used_bytes: int, most_mb: int, whose: str = "this project") -> None:
    """Raises OverLimitError where a file does not fit beside what is kept already; ``most_mb`` 0 is no limit.

    >>> check_room("A.ifc", 3 << 20, 9 << 20, 10)
    Traceback (most recent call last):
    ...
    stairpath.core.project_limits.OverLimitError: A.ifc has 3 MB, and this project holds 9 of at most 10 MB. Remove what nobody \
needs, or ask who runs the server for a higher limit.
    """
    if most_mb and used_bytes + size_bytes > most_mb << 20:
        raise OverLimitError(
            f"{name} has {megabytes(size_bytes)}, and {whose} holds {used_bytes >> 20:,} of at most {most_mb:,} MB. "
            f"Remove what nobody needs, or {_ASK}."
        )


def check_components(name: str, count: int, others: int, most: int) -> None:
    """Raises OverLimitError where a model has more components than the project may have with its other models."""
    if count + others > most:
        beside = f", and the other models of this project have {others:,}" if others else ""
        raise OverLimitError(
            f"{name} has {count:,} components{beside}; a project may have {most:,}. "
            f"Remove a model that nobody needs, or {_ASK}."
        )


def check_tasks(count: int, most: int) -> None:
    """Raises OverLimitError where so many checks, sheets and imports of a project are not done that no other is taken."""
    if count >= most:
        raise OverLimitError(
            f"{count} checks, sheets or imports of this project are not done yet, and no more are taken. "
            "Wait until one is done, or stop one."
        )
