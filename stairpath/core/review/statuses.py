"""What statuses a project's topics may have, which may follow which, and which are ends."""

from __future__ import annotations

from dataclasses import dataclass, field


class NotAStatusError(ValueError):
    """A status, or a set of them, that cannot be; the message says what to do."""


@dataclass(frozen=True)
class Status:
    """A status by its name; ``next`` are those that may follow, and an end is one at which nothing is waited for."""

    name: str
    next: tuple[str, ...]
    end: bool = False


@dataclass(frozen=True)
class Statuses:
    """A project's statuses, the one that topics begin with first."""

    all: tuple[Status, ...] = field(
        default_factory=lambda: (
            Status("open", ("in hand", "asked", "settled", "dropped")),
            Status("in hand", ("open", "asked", "answered", "settled", "dropped")),
            Status("asked", ("in hand", "answered", "settled", "dropped")),
            Status("answered", ("in hand", "asked", "settled", "dropped")),
            Status("settled", ("open",), end=True),
            Status("dropped", ("open",), end=True),
        )
    )

    def __post_init__(self) -> None:
        names = [status.name for status in self.all]
        if not names:
            raise NotAStatusError("Topics need a status to begin with; keep at least one.")
        for name in names:
            if not name.strip() or name != name.strip():
                raise NotAStatusError("A status needs a name without space around it; type one.")
        if len({name.casefold() for name in names}) < len(names):
            raise NotAStatusError("Two statuses have the same name; give one another.")
        for status in self.all:
            for after in status.next:
                if after not in names:
                    raise NotAStatusError(
                        f"{after} may follow {status.name}, but there is no such status; add it first."
                    )
        if all(status.end for status in self.all):
            raise NotAStatusError("All statuses are ends; topics need one to begin with.")

    @property
    def first(self) -> str:
        """The status of a new topic."""
        return next(status.name for status in self.all if not status.end)

    def named(self, name: str) -> Status:
        """A status by its name, without regard to case; NotAStatusError for one that there is not."""
        for status in self.all:
            if status.name.casefold() == name.strip().casefold():
                return status
        raise NotAStatusError(f"There is no status {name.strip()}; choose {', '.join(s.name for s in self.all)}.")

    def followed(self, before: str, after: str) -> str:
        """The status that follows one, as it is written; NotAStatusError where it may not. The same one always may."""
        now = self.named(after)
        try:
            was = self.named(before)
        except NotAStatusError:
            return now.name  # a status that the project had once
        if now != was and now.name not in was.next:
            allowed = ", ".join(was.next) or "nothing"
            raise NotAStatusError(f"After {was.name} may come {allowed}, not {now.name}; choose one of those.")
        return now.name
