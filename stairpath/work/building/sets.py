"""Sets: components found by conditions, kept by name."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from stairpath.core.register.schedule import NotAScheduleError, step_of
from stairpath.core.texts import trimmed
from stairpath.core.visibility.condition import Condition
from stairpath.store import kept
from stairpath.store.tables import ComponentSet as ComponentSet
from stairpath.work.base.errors import WrongError
from stairpath.work.base.lookup import SET, find
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import Who, read_only, unit_of_work


def listed(project_id: str) -> list[ComponentSet]:
    """The project's sets, by name."""
    with read_only() as look:
        return kept.sets(look.session, in_use(look, project_id).id)


def _named(name: str) -> str:
    if not trimmed(name):
        raise WrongError("A set needs a name; type one.")
    return trimmed(name)


def _asking(conditions: Sequence[Condition]) -> tuple[Condition, ...]:
    if not conditions:
        raise WrongError("A set needs a condition; without one it would be everything.")
    return tuple(conditions)


@dataclass(frozen=True)
class Layout:
    """How a set is listed: what it is grouped by, what is summed, and what is said beside each component.

    Nothing for as the list happens to be.
    """

    steps: tuple[str, ...] = ()
    sums: tuple[str, ...] = ()
    columns: tuple[str, ...] = ()

    def checked(self) -> Layout:
        """The same, if it can be grouped by; WrongError with a sentence if not."""
        try:
            return replace(self, steps=tuple(map(step_of, self.steps)))
        except NotAScheduleError as error:
            raise WrongError(str(error)) from error


def keep(who: Who, project_id: str, name: str, conditions: Sequence[Condition], layout: Layout) -> ComponentSet:
    """Keep conditions by a name, and how what meets them is listed."""
    with unit_of_work(who) as act:
        project = in_use(act, project_id)
        checked = layout.checked()
        row = ComponentSet(
            project_id=project.id, name=_named(name), author=who.said, conditions=_asking(conditions),
            steps=list(checked.steps), sums=list(checked.sums), columns=list(checked.columns),
        )  # fmt: skip
        kept.add(act.session, row)
        act.tell(project.id, "sets", what=row.id)
        return row


def change(who: Who, set_id: str, name: str, conditions: Sequence[Condition], layout: Layout) -> ComponentSet:
    """Give a set another name, other conditions, or another layout."""
    with unit_of_work(who) as act:
        found = find(act, SET, set_id, hold=True)
        checked = layout.checked()
        found.name, found.conditions = _named(name), _asking(conditions)
        found.steps, found.sums, found.columns = map(list, (checked.steps, checked.sums, checked.columns))
        act.tell(found.project_id, "sets", what=found.id)
        return found
