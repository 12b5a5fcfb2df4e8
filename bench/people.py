"""What it costs to know who asks and whether they may, and to sign in."""

from __future__ import annotations

import time

from bench.measure import Measure, middle
from stairpath.core.people.roles import Action
from stairpath.core.review.topic import TopicFields
from stairpath.store import people
from stairpath.store.person_tables import Person
from stairpath.work.base import projects
from stairpath.work.base.unit_of_work import WORKER, Where, Who, unit_of_work
from stairpath.work.people import access, secrets, sign_ins
from stairpath.work.topics import topics
from stairpath.work.topics.topics import NewTopic

_ASKED, _TRIES = 400, 7
_DOOR_MS, _SIGN_IN_MS = 2.0, 300.0


def asking() -> list[Measure]:
    """Who asks, the project of the topic that an address names, and the role there; in this process, on its database."""
    with unit_of_work(WORKER) as act:
        person = Person(key="bench", name="Bench", password="x", owner=True)
        people.add(act.session, person)
        secret = sign_ins.begin(act, person, Where(""))
    who = Who("Bench", person_id=person.id)
    project = projects.make(who, "Bench").project.id
    topic = topics.make(who, project, NewTopic(TopicFields("Gap"))).topic.id
    took = []
    try:
        for _ in range(_ASKED):
            begun = time.perf_counter()
            access.let_in(secret, Action.CHANGE_TOPIC, {"topic_id": topic})
            took.append(1000 * (time.perf_counter() - begun))
    finally:
        # Where there are people everybody signs in, as who measures other parts does not.
        with unit_of_work(WORKER) as act:
            people.remove(act.session, person.id)
    how = f"median of {_ASKED} times; the reference is what it may cost"
    return [Measure("who asks, and whether they may", middle(took), _DOOR_MS, "ms", 1.0, how)]


def signing_in() -> list[Measure]:
    """The time of a core that a password takes."""
    kept = secrets.hashed("a pier of long planks")
    took = []
    for _ in range(_TRIES):
        begun = time.process_time()
        secrets.matches("a pier of long planks", kept)
        took.append(1000 * (time.process_time() - begun))
    how = f"processor time of the password's hash, median of {_TRIES}; the reference is what it may cost"
    return [Measure("signing in", middle(took), _SIGN_IN_MS, "ms", 1.0, how)]


def measure() -> list[Measure]:
    """All of them."""
    return asking() + signing_in()
