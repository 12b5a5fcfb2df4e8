"""Whatever somebody with any role sends, the server answers as its document says, and never with a fault of its own."""

from __future__ import annotations

import pytest
from hypothesis import HealthCheck
from hypothesis import settings as hypothesis_settings

from stairpath.api.server import create_app
from stairpath.core.people.roles import ROLES
from stairpath.store.database import transaction
from stairpath.store.members import put
from stairpath.store.person_tables import Person
from stairpath.store.tables import Project
from stairpath.work.base.unit_of_work import WORKER, Where, unit_of_work
from stairpath.work.people import sign_ins, slow_down
from tests.anything import operations_of, try_operation
from tests.api.conftest import COOKIE
from tests.soak.length import length

OFTEN = hypothesis_settings(max_examples=2, deadline=None, suppress_health_check=list(HealthCheck), database=None)
ENDS_IT = ("/sign-out", "/sign-in", "/account", "/links/", "/people", "/elsewhere", "/demo")
"""What may end who is signed in; test_who_may asks it as everybody."""


@pytest.mark.parametrize("who", [*ROLES, "server"])
def test_answers_are_as_the_document_says_to_who_is_signed_in(opened, house, who):
    """Made-up requests of somebody in a project of theirs, and of whoever runs the server."""
    # An application of their own: each of these requests starts and ends it.
    app = create_app()
    with unit_of_work(WORKER) as act:
        person = Person(key=who, name=f"Asks as {who}", owner=who == "server", makes_projects=True, password="x")
        act.session.add(person)
        act.session.flush()
        secret = sign_ins.begin(act, person, Where())
        if who != "server":
            put(act.session, house, "person", person.id, who, "x")
    slow_down._requests.storage.reset()
    operations = [each for each in operations_of(app) if not any(word in each.path for word in ENDS_IT)]
    # Each role another part of them; `make soak` asks more of each.
    operations = operations[[*ROLES, "server"].index(who) :: length(12, 3)]
    found = [line for each in operations for line in try_operation(each, OFTEN, f"{COOKIE}={secret}")]
    with transaction() as session:
        assert session.get_one(Project, house).id == house
    assert found == []
