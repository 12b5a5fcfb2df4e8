"""The bin: whatever was deleted of a project is found for 30 days, and restored from there."""

from __future__ import annotations

from datetime import timedelta

import pytest

from stairpath.store.database import transaction
from stairpath.store.tables import Viewpoint
from stairpath.work.base.bin import IN_BIN, KEPT_DAYS
from tests.api.test_folders import folder
from tests.api.test_meetings import begin, note
from tests.api.test_routes import ACROSS
from tests.api.test_topics import make
from tests.api.test_views import keep


def binned(client, project):
    answer = client.get(f"/api/projects/{project}/bin")
    assert answer.status_code == 200, answer.text
    return answer.json()


@pytest.fixture
def things(client, house):
    """One thing of each kind: where it is deleted and restored, and its name."""
    topic, meeting = make(client, house, "Duct in the beam"), begin(client, house, title="Monday")
    attached = client.post(f"/api/topics/{topic['id']}/files", content=b"x", headers={"X-File-Name": "a.txt"}).json()
    sheet = {"kind": "sheet", "shape": {"kind": "plane", "point_m": [0, 0, 1], "normal": [0, 0, 1]}}
    asked = {"conditions": [{"what": "class", "how": "present"}], "name": "All doors"}
    way = {"name": "Way out", "wish": ACROSS}
    of = f"/api/projects/{house}"
    made = {
        "topic_file": (f"topic-files/{attached['id']}", "a.txt"),
        "meeting_point": (f"meeting-points/{note(client, meeting, topic, 'Lower it.')['id']}", "Lower it."),
        "topic": (f"topics/{topic['id']}", "Duct in the beam"),
        "meeting": (f"meetings/{meeting['id']}", "Monday"),
        "viewpoint": (f"viewpoints/{keep(client, house, name='From the door').json()['id']}", "From the door"),
        "folder": (f"folders/{folder(client, house, 'Level 00')}", "Level 00"),
        "set": (f"sets/{client.post(f'{of}/sets', json=asked).json()['id']}", "All doors"),
        "task": (f"tasks/{client.post(f'{of}/tasks', json={'name': 'Plan', 'wish': sheet}).json()['id']}", "Plan"),
        "route": (f"routes/{client.post(f'{of}/routes', json=way).json()['id']}", "Way out"),
    }
    assert made.keys() == IN_BIN.keys()
    return made


def test_whatever_is_deleted_is_in_the_bin_and_comes_back(client, house, things):
    assert binned(client, house) == []
    for kind, (path, name) in things.items():
        assert client.delete(f"/api/{path}").status_code in (200, 204)
        (found,) = binned(client, house)
        assert (found["kind"], found["name"], path.rsplit("/")[-1]) == (kind, name, found["id"])
        assert client.post(f"/api/{path}/restore").status_code in (200, 204)
        assert binned(client, house) == []


def test_what_was_deleted_last_is_first_and_a_part_comes_back_with_its_whole(client, house, things):
    client.delete(f"/api/{things['topic_file'][0]}")
    client.delete(f"/api/{things['viewpoint'][0]}")
    assert [(each["name"], each["of"]) for each in binned(client, house)] == [
        ("From the door", ""),
        ("a.txt", "Duct in the beam"),
    ]
    client.delete(f"/api/{things['topic'][0]}")
    assert [each["kind"] for each in binned(client, house)] == ["topic", "viewpoint"]


def test_the_bin_lists_what_was_deleted_within_30_days_of_its_own_project(client, house, things):
    path, _ = things["viewpoint"]
    client.delete(f"/api/{path}")
    other = client.post("/api/projects", json={"name": "Other"}).json()["id"]
    assert binned(client, other) == []
    deleted_earlier(path.rsplit("/")[-1], KEPT_DAYS - 1)
    assert len(binned(client, house)) == 1
    deleted_earlier(path.rsplit("/")[-1], 2)
    assert binned(client, house) == []


def deleted_earlier(view: str, days: float) -> None:
    """Let a view have been deleted some days before it was."""
    with transaction() as session:
        row = session.get(Viewpoint, view)
        assert row is not None
        assert row.removed_at is not None
        row.removed_at -= timedelta(days=days)
