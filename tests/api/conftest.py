"""A client of the real application on a real PostgreSQL, and the real jobs run in turn."""

from __future__ import annotations

import asyncio
import re
from urllib.parse import quote

import numpy as np
import pytest
from fastapi.testclient import TestClient
from sqlalchemy import delete

from stairpath.store import people
from stairpath.store.database import transaction
from stairpath.store.mail import Mail
from stairpath.store.person_tables import OneTimeLink, Person
from stairpath.work.base.unit_of_work import WORKER, Where, unit_of_work
from stairpath.work.people import links, post, secrets, sign_ins, slow_down
from tests.asking import by
from tests.building import assembled
from tests.samples import Sample


@pytest.fixture(scope="session")
def client(database_url):
    from stairpath.api.server import create_app

    with TestClient(create_app(), base_url="http://127.0.0.1") as opened:
        yield opened


@pytest.fixture
def building(client):
    """The federation of a project with its columns, as the page puts it together."""

    def of(project_id: str):
        head = client.get(f"/api/projects/{project_id}/federation").json()
        return assembled(head, lambda address: client.get(address).content)

    return of


@pytest.fixture
def work(database_url):
    """Run every job that waits on the queue."""

    def run() -> None:
        from procrastinate import PsycopgConnector

        from stairpath.jobs.queue import app

        async def once() -> None:
            with app.replace_connector(PsycopgConnector(conninfo=database_url)) as queue:
                async with queue.open_async():
                    await queue.run_worker_async(wait=False, install_signal_handlers=False, listen_notify=False)

        asyncio.run(once())

    return run


@pytest.fixture
def project(client):
    made = client.post("/api/projects", json={"name": "Trial house"}, headers=by("Ida Fenn"))
    assert made.status_code == 201
    return made.json()["id"]


@pytest.fixture
def send(client):
    """Send a file into a project, as the browser does."""

    def post(project_id: str, name: str, content: bytes | Sample):
        body = content.content() if isinstance(content, Sample) else content
        headers = {"X-File-Name": quote(name), **by("Ida Fenn")}
        return client.post(f"/api/projects/{project_id}/models", content=body, headers=headers)

    return post


@pytest.fixture(scope="session", autouse=True)
def quick_passwords():
    """Passwords are worked out with little memory here: what they cost is measured by ``make bench people``."""
    with pytest.MonkeyPatch.context() as patch:
        patch.setattr(secrets, "_PASSES", 1)
        patch.setattr(secrets, "_MEMORY_KIB", 1 << 10)
        secrets._hasher.cache_clear()
        yield
    secrets._hasher.cache_clear()


GAP = 0.72


def two_rooms(gap: float = GAP, north_m: float = 0.0) -> Sample:
    """Two rooms of 4 x 3 m, a gap in the wall between them, and a deck 3 m above the west one."""
    sample = Sample()
    ground, upper = sample.storey("Level 00", 0), sample.storey("Level 01", 3)
    sample.box(ground, (-0.2, -0.2 + north_m, -0.3), (8.6, 3.4, 0.3), "IfcSlab", Name="Ground", Tag="S-1")
    for tag, corner, size in (
        ("W-S", (-0.2, -0.2), (8.6, 0.2)),
        ("W-N", (-0.2, 3), (8.6, 0.2)),
        ("W-W", (-0.2, 0), (0.2, 3)),
        ("W-E", (8.2, 0), (0.2, 3)),
        ("W-1", (4, 0), (0.2, 1)),
        ("W-2", (4, 1 + gap), (0.2, 2 - gap)),
    ):
        sample.box(ground, (corner[0], corner[1] + north_m, 0), (*size, 2.7), "IfcWall", Name="Wall", Tag=tag)
    sample.box(upper, (0, north_m, -0.3), (4, 3, 0.3), "IfcSlab", Name="Deck", Tag="S-2")
    sample.room(ground, "0.01", "West", (0, north_m, 0), (4, 3, 2.7))
    sample.room(ground, "0.02", "East", (4.2, north_m, 0), (4, 3, 2.7))
    return sample


@pytest.fixture
def house(project, send, work):
    send(project, "T-ARC.ifc", two_rooms())
    work()
    return project


@pytest.fixture
def origin(client, house):
    return np.array(client.get(f"/api/projects/{house}/federation").json()["origin_m"])


@pytest.fixture
def ask(client, house, origin):
    def post(path, status=200, **wish):
        for key in ("at_m",):
            if key in wish:
                wish[key] = (np.array(wish[key]) - origin).tolist()
        answer = client.post(f"/api/projects/{house}/{path}", json=wish)
        assert answer.status_code == status, answer.text
        return answer.json()

    return post


GOOD = "harbour wall at low tide"
COOKIE = "stairpath"


@pytest.fixture
def opened(client):
    """Browsers of their own at the application; afterwards nobody signs in again."""
    browsers = []

    def browser(base_url: str = "http://127.0.0.1") -> TestClient:
        browsers.append(TestClient(client.app, base_url=base_url))
        return browsers[-1]

    slow_down._windows.storage.reset()
    yield browser
    with transaction() as session:
        session.execute(delete(OneTimeLink))
        session.execute(delete(Mail))
        session.execute(delete(Person))
    sign_ins.ANYBODY.some = False
    slow_down._windows.storage.reset()
    for each in browsers:
        each.close()


@pytest.fixture
def owner(opened):
    """The first owner, signed in."""
    return first(opened())


def mailed_secret(to: str) -> str:
    """What the link of the newest mail to somebody carries."""
    text = next(each.text for each in post.mailbox() if each.to == to)
    found: list[str] = re.findall(r"/welcome#(\S+)", text)
    return found[0]


def first(browser: TestClient) -> TestClient:
    wish = {"secret": links.for_first_owner(), "password": GOOD, "key": "Ida@quillhaven.example", "name": "Ida Fenn"}
    answer = browser.post("/api/links/use", json=wish)
    assert answer.status_code == 200, answer.text
    return browser


@pytest.fixture
def person(opened):
    """Somebody who is signed in at a browser of their own; nobody's password is worked out."""

    def made(key: str, name: str, **more) -> TestClient:
        with unit_of_work(WORKER) as act:
            row = Person(key=key, name=name, password="x", **more)
            people.add(act.session, row)
            secret = sign_ins.begin(act, row, Where(""))
        browser: TestClient = opened()
        browser.cookies.set(COOKIE, secret, domain="127.0.0.1")
        return browser

    return made
