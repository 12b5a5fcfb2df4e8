"""Every operation as everybody: each role, a member of another project, a guest, a stranger; compared with the table beside it."""

from __future__ import annotations

import re
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from sqlalchemy import delete
from starlette.websockets import WebSocketDisconnect

from stairpath.core.people.roles import ROLES
from stairpath.store.database import transaction
from stairpath.store.members import add_guest_link, put
from stairpath.store.person_tables import GuestLink, Member, Person, SignIn
from stairpath.store.tables import Project
from stairpath.work.base.unit_of_work import WORKER, Where, unit_of_work
from stairpath.work.people import sign_ins
from stairpath.work.people.secrets import fingerprint
from tests.api.test_folders import folder
from tests.api.test_meetings import begin, note
from tests.api.test_topics import make
from tests.api.test_views import keep, png
from tests.asking import by

TABLE = [
    tuple(line.split()) for line in (Path(__file__).parent / "who_may.txt").read_text().splitlines() if line[0] != "#"
]
APPLICATIONS = ("/api", "/bcf/3.0", "/foundation/1.1")
UNKNOWN = "0" * 32
DISTURBING = ("/sign-", "/links/", "/members", "/leave", "/people")
ONE = "/api/projects/{project_id}"
"""What may change who is signed in, who is in the project, or whether that is in use."""
CALLED = {
    "look": "Lena Ott", "comment": "Carl Moss", "coordinate": "Cora Wynn", "own": "Olaf Berg", "server": "Sten Holm",
    "maker": "Mika Lund", "beside": "Bea Frost",
}  # fmt: skip
"""Those who are in the project by their roles; who runs the server, who makes projects and who owns another are not."""


def operations(client) -> set[tuple[str, str]]:
    """Every operation of every document."""
    found = set()
    for at in APPLICATIONS:
        before = at.rsplit("/", 1)[0] if at != "/api" else ""
        for path, methods in client.get(f"{at}/openapi.json").json()["paths"].items():
            found |= {(method.upper(), before + path) for method in methods}
    return found


def test_every_operation_stands_in_the_table_and_no_other(client):
    listed = [(method, path) for method, path, _ in TABLE if method != "SOCKET"]
    assert len(listed) == len(set(listed))
    assert set(listed) == operations(client)


class World:
    """A project with one of everything, another beside it, and everybody signed in at a browser of their own."""

    def __init__(self, client, house: str, beside: str, words: dict[str, str]) -> None:
        self.client, self.house, self.beside, self.words = client, house, beside, words
        self.people: dict[str, str] = {}
        self.secrets: dict[str, str] = {}
        with transaction() as session:
            for key, name in CALLED.items():
                row = Person(key=key, name=name, owner=key == "server", makes_projects=key == "maker", password="x")
                session.add(row)
                session.flush()
                self.people[key] = row.id
            guest = GuestLink(
                project_id=house,
                name="Client",
                secret_hash=fingerprint("guest"),
                made_by="x",
                ends_at=datetime.now(UTC) + timedelta(days=1),
            )
            add_guest_link(session, guest)
            self.guest = guest.id
        self.as_it_was()

    def as_it_was(self) -> None:
        """Have everybody in their project and signed in, and the project out of the bin, whatever was done."""
        with transaction() as session:
            session.execute(delete(Member))
            session.execute(delete(SignIn))
            for role in ROLES:
                made = put(session, self.house, "person", self.people[role], role, "x")
                if role == "look":
                    self.words["member_id"] = made.id
            put(session, self.beside, "person", self.people["beside"], "own", "x")
            session.get_one(Project, self.house).removed_at = None
        with unit_of_work(WORKER) as act:
            for key, person_id in self.people.items():
                self.secrets[key] = sign_ins.begin(act, act.session.get_one(Person, person_id), Where(""))
            self.secrets["guest"] = sign_ins.begin_guest(act, act.session.get_one(GuestLink, self.guest), Where(""))

    def cookies(self, key: str) -> dict[str, str]:
        """What the browser of somebody keeps."""
        return {"Cookie": f"stairpath={self.secrets[key]}"} if key in self.secrets else {}


@pytest.fixture
def world(client, house, opened, building):
    """Made while nobody signs in, by somebody else than those who sign in then."""
    head = building(house)
    (model,) = head["models"]
    beside = client.post("/api/projects", json={"name": "Beside"}, headers=by("Ida Fenn")).json()["id"]
    topic, meeting, view = make(client, house, "Gap"), begin(client, house), keep(client, house).json()
    comment = client.post(
        f"/bcf/3.0/projects/{house}/topics/{topic['guid']}/comments", json={"comment": "x"}, headers=by("Ida Fenn")
    ).json()
    client.patch(f"/api/topics/{topic['id']}", json={"views": {"add": [view["id"]]}})
    over = {"picture_png": png(), "view": view["view"]}
    client.put(f"/api/viewpoints/{view['id']}/view", json=over, headers=by("Ida Fenn"))
    file = client.post(
        f"/api/topics/{topic['id']}/files", content=b"x", headers={"X-File-Name": "a.txt", **by("Ida Fenn")}
    ).json()
    asked = {"conditions": [{"what": "class", "how": "present"}], "name": "All"}
    sheet = {"kind": "sheet", "shape": {"kind": "plane", "point_m": [0, 0, 1], "normal": [0, 0, 1]}}
    wish = {"start": {"room": 0}, "end": {"room": 1}}
    answer = client.post(f"/api/projects/{house}/routes/find", json=wish).json()
    route = client.post(f"/api/projects/{house}/routes", json={"name": "Way", "wish": wish, "answer": answer})
    tile = client.get(f"/api/projects/{house}/walking").json()["tiles"][0]
    guids = client.get(f"/bcf/3.0/projects/{house}/topics/{topic['guid']}/viewpoints").json()
    words = {
        "project_id": house, "model_id": model["id"], "global_id": model["global_ids"][0], "topic_id": topic["id"],
        "meeting_id": meeting["id"], "point_id": note(client, meeting, topic, "x")["id"], "viewpoint_id": view["id"],
        "earlier_id": client.get(f"/api/viewpoints/{view['id']}/earlier").json()[0]["id"], "file_id": file["id"],
        "folder_id": folder(client, house, "Level 00"), "guid": topic["guid"], "comment_guid": comment["guid"],
        "set_id": client.post(f"/api/projects/{house}/sets", json=asked).json()["id"],
        "task_id": client.post(f"/api/projects/{house}/tasks", json={"name": "Plan", "wish": sheet}).json()["id"],
        "route_id": route.json()["id"], "view_guid": guids[0]["guid"], "bitmap": UNKNOWN, "document": file["id"],
        "person_id": UNKNOWN, "token_id": UNKNOWN, "program_id": UNKNOWN, "grant_id": UNKNOWN, "link_id": UNKNOWN, "what": "class", "form": "csv", "blobs": model["chunks"][0]["sha256"],
        "columns": model["named"], "keyplans": head["levels"][0]["plan"], "walk-tiles": tile["sha256"],
    }  # fmt: skip
    made = World(client, house, beside, words)
    yield made
    with transaction() as session:
        session.execute(delete(GuestLink))


def filled(path: str, words: dict[str, str]) -> str:
    """An address with the words of a world in it; a hash is one of what the address serves."""
    served = path.split("/")[-2]
    return re.sub(r"\{(\w+)\}", lambda m: words[served if m.group(1) == "sha256" else m.group(1)], path)


def ask(world: World, key: str, method: str, address: str):
    """What is answered to somebody who asks with nothing in the body."""
    world.client.cookies.clear()
    return world.client.request(method, address, json={} if method != "GET" else None, headers=world.cookies(key))


def socket_refused(world: World, key: str, address: str) -> bool:
    """Whether a socket is closed before it opens."""
    world.client.cookies.clear()
    try:
        with world.client.websocket_connect(f"ws://127.0.0.1{address}", headers=world.cookies(key)):
            return False
    except WebSocketDisconnect:
        return True


def sentence(answer) -> str:
    """The sentence of a refusal, in either form."""
    body = answer.json()
    return str(body.get("detail") or body["message"])


def least_of(level: str) -> set[str]:
    """Who is let in at a level of the table."""
    if level == "open":
        return {*CALLED, "guest", "nobody"}
    if level == "signed":
        return {*CALLED, "guest"}
    if level == "person":
        return set(CALLED)
    if level == "server":
        return {"server"}
    if level == "maker":
        return {"server", "maker"}
    return {*ROLES[ROLES.index(level) :], *(["guest"] if level == "look" else [])}


def test_everybody_may_what_the_table_says_and_nothing_else(world):
    wrong: list[tuple[object, ...]] = []
    for method, path, level in TABLE:
        address, may = filled(path, world.words), least_of(level)
        for key in (*(each for each in (*CALLED, "guest", "nobody") if each not in may), *sorted(may)):
            if method == "SOCKET":
                if socket_refused(world, key, address) == (key in may):
                    wrong.append((method, path, key))
                continue
            if path.endswith("/events") and path.startswith("/api") and key in may:
                continue  # it goes on for ever; test_following hears it
            answer = ask(world, key, method, address)
            status = answer.status_code
            if key in may:
                good = status not in (401, 403) and "no such project" not in answer.text
            elif key == "nobody":
                good = status == 401
            elif level not in ROLES or key in ROLES or key == "guest":
                good = status == 403
            else:
                # Who is not in the project hears of a thing what they hear of one that there never was.
                words = {**world.words, **dict.fromkeys(re.findall(r"\{(\w+_id)\}", path), UNKNOWN)}
                unknown = ask(world, key, method, filled(path, words))
                good = (status, sentence(answer)) == (404, sentence(unknown)) and unknown.status_code == 404
            if not good:
                wrong.append((method, path, key, status, answer.text[:120]))
        if method != "GET" and (path == ONE or any(word in path for word in DISTURBING)):
            world.as_it_was()
    assert wrong == []


def test_what_says_nothing_of_itself_does_nothing(world, monkeypatch):
    from stairpath.api.http import door
    from stairpath.api.routes.topics import list_topics

    monkeypatch.delitem(door._ACTIONS, list_topics)
    address = f"/api/projects/{world.house}/topics"
    assert [ask(world, key, "GET", address).status_code for key in ("own", "server", "nobody")] == [403, 403, 401]


_SHAPES = {"hash": r"[0-9a-f]{64}", "id": r"[0-9a-f]{32}", "guid": r"[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}"}


def test_nothing_that_an_answer_of_one_project_names_is_had_through_another(world):
    reads = [
        path for method, path, level in TABLE if method == "GET" and level in ROLES and not path.endswith("/events")
    ]
    text = " ".join(ask(world, "own", "GET", filled(path, world.words)).text for path in reads)
    named = {kind: sorted(set(re.findall(rf"\b{shape}\b", text))) for kind, shape in _SHAPES.items()}
    named["id"] = [each for each in named["id"] if each not in (world.beside, UNKNOWN)]
    assert min(len(found) for found in named.values()) >= 3
    got = []
    for path in reads:
        *_, last = re.findall(r"\{(\w+)\}", path)
        if last == "project_id":
            continue
        kind = "hash" if last == "sha256" else "guid" if "guid" in last or last == "document" else "id"
        for each in named[kind]:
            # Everything else of the address is that of the thing itself: only the project is another.
            words = {**world.words, "project_id": world.beside, last: each}
            address = path.format_map(words)
            answer = ask(world, "beside", "GET", address)
            if answer.status_code not in (404, 422):
                got.append((path, each, answer.status_code, answer.text[:80]))
    assert got == []
