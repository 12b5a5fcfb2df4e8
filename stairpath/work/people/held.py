"""A person who is to be changed or removed."""

from __future__ import annotations

from stairpath.store import people
from stairpath.store.person_tables import Person
from stairpath.work.base.errors import MissingError
from stairpath.work.base.unit_of_work import UnitOfWork


def held_person(act: UnitOfWork, person_id: str) -> Person:
    """A person by their id, held until the transaction ends; MissingError where there is none any more."""
    person = people.person_by_id(act.session, person_id, hold=True)
    if person is None:
        raise MissingError("There is no such person any more. Look at the list again.")
    return person
