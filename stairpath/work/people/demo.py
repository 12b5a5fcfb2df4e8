"""The demo's people: whoever looks at it on this machine is one of them with one click. Only in the demo, and only on loopback."""

from __future__ import annotations

from dataclasses import dataclass

from stairpath.core.people.roles import ROLE_MEANS
from stairpath.demo.people import PEOPLE
from stairpath.store import members, people, record
from stairpath.store.person_tables import Person
from stairpath.work.base.errors import MissingError
from stairpath.work.base.unit_of_work import WORKER, Where, Who, unit_of_work
from stairpath.work.people.sign_ins import ANYBODY, Signed, begin, signed


@dataclass(frozen=True)
class OneOfThem:
    """Somebody whom a visitor of the demo can be."""

    key: str
    name: str
    says: str


def load(project_id: str) -> None:
    """Have the demo's people in its project, where nobody signs in yet. None of them has a password."""
    with unit_of_work(WORKER) as act:
        if people.any_people(act.session):
            return
        ANYBODY.some = True
        for each in PEOPLE:
            first = each is PEOPLE[0]
            row = Person(
                key=each.key, name=each.name, firm=each.firm, firm_key=members.firm_key(each.firm),
                discipline=each.discipline, owner=first, makes_projects=first,
            )  # fmt: skip
            people.add(act.session, row)
            members.put(act.session, project_id, "person", row.id, each.role, WORKER.said, each.name)


def offered() -> list[OneOfThem]:
    """Whom a visitor can be, with what each may in the demo's project."""
    return [OneOfThem(each.key, each.name, f"{each.firm}: {ROLE_MEANS[each.role][0].lower()}s") for each in PEOPLE]


def be(key: str, where: Where) -> tuple[str, Signed]:
    """Be one of the demo's people: what the browser keeps, and who one is. MissingError for anybody else."""
    with unit_of_work(WORKER) as act:
        known = any(each.key == key for each in PEOPLE)
        person = people.person_by_key(act.session, key) if known else None
        if person is None:
            raise MissingError("There is no such address.")
        doer = Who(person.name, person_id=person.id, where=where)
        record.begin(act.session, doer.doer)
        record.note(act.session, record.SERVER, "signed in to the demo", "sign_in", person.id, person.key)
        return begin(act, person, where), signed(person)
