"""What is removed for good by rule: the bin after 30 days, and bytes that nothing has referred to for a week."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta

import pytest
from sqlalchemy import func, select, text

from stairpath.store import blobs
from stairpath.store.backups import wrong_blobs
from stairpath.store.database import transaction
from stairpath.store.record_tables import RecordEntry
from stairpath.store.tables import Blob, ProjectBlob, Viewpoint
from stairpath.work.base.bin import IN_BIN, KEPT_DAYS
from stairpath.work.base.emptying import UNUSED_DAYS, empty
from tests.api.test_bin import things
from tests.api.test_meetings import begin, note
from tests.api.test_topics import make
from tests.api.test_views import keep

assert things


def in_days(days: float):
    return empty(datetime.now(UTC) + timedelta(days=days))


def kept_blobs() -> set[str]:
    with transaction() as session:
        return set(session.scalars(select(Blob.sha256)))


def loose(project: str, data: bytes) -> str:
    """Bytes that no row names."""
    with transaction() as session:
        return blobs.keep(session, project, data, "application/octet-stream")


def test_what_lay_in_the_bin_for_30_days_is_removed_for_good(client, house, things):
    for path, _ in things.values():
        client.delete(f"/api/{path}")
    in_days(KEPT_DAYS - 1)
    restored = {
        kind for kind, (path, _) in reversed(things.items()) if client.post(f"/api/{path}/restore").status_code < 300
    }
    assert restored == set(IN_BIN)
    for path, _ in things.values():
        client.delete(f"/api/{path}")
    assert in_days(KEPT_DAYS + 1).things >= len(IN_BIN)
    for path, _ in things.values():
        assert client.post(f"/api/{path}/restore").status_code == 404, path
    entries = client.get(f"/api/projects/{house}/record").json()["entries"]
    assert [(each["who"], each["action"]) for each in entries if each["kind"] == "bin"] == [
        ("Stair Path", "removed for good")
    ]


def test_what_is_in_use_stays_however_old_it_is(client, house, things):
    in_days(1000)
    for path, _ in things.values():
        assert client.delete(f"/api/{path}").status_code in (200, 204), path


def test_minutes_keep_the_topics_that_they_tell_of_and_topics_their_views(client, house):
    topic, meeting = make(client, house, "Duct in the beam"), begin(client, house, title="Monday")
    note(client, meeting, topic, "Lower it.")
    view = keep(client, house, name="From the door").json()["id"]
    client.post(f"/api/topics/{topic['id']}/comments", json={"text": "See this.", "view": view})
    client.delete(f"/api/topics/{topic['id']}")
    client.delete(f"/api/viewpoints/{view}")
    in_days(KEPT_DAYS + 1)
    assert client.post(f"/api/topics/{topic['id']}/restore").status_code == 200
    told = [*client.get(f"/api/topics/{topic['id']}").json()["topic"]["views"], view]
    with transaction() as session:
        assert [key for key in told if session.get(Viewpoint, key) is None] == []


def test_a_project_is_removed_after_30_days_in_the_bin_with_all_that_is_in_it(client, house, things):
    client.delete(f"/api/projects/{house}")
    in_days(KEPT_DAYS - 1)
    assert client.post(f"/api/projects/{house}/restore").status_code < 300
    client.delete(f"/api/projects/{house}")
    assert in_days(KEPT_DAYS + 1).projects >= 1
    assert client.post(f"/api/projects/{house}/restore").status_code == 404
    with transaction() as session:
        assert session.scalar(select(func.count()).where(ProjectBlob.project_id == house)) == 0
        said = select(RecordEntry.action).where(RecordEntry.chain == "server", RecordEntry.thing_id == house)
        assert session.scalars(said).all() == ["removed for good"]


def test_bytes_that_nothing_refers_to_are_removed_after_a_week(client, house):
    sha = loose(house, b"nobody needs this")
    in_days(0)
    in_days(UNUSED_DAYS - 1)
    assert sha in kept_blobs()
    assert in_days(UNUSED_DAYS + 1).blobs >= 1
    assert sha not in kept_blobs()
    with transaction() as session:
        assert session.scalar(text("SELECT count(*) FROM blob_piece WHERE sha256 = :sha"), {"sha": sha}) == 0


def test_all_that_a_building_is_drawn_and_asked_from_stays(client, house, things, building):
    client.post(f"/api/projects/{house}/tasks", json={"name": "Plan", "wish": {"kind": "sheet", "shape": {"kind": "plane", "point_m": [0, 0, 1], "normal": [0, 0, 1]}}})  # fmt: skip
    before = building(house)
    in_days(0)
    in_days(UNUSED_DAYS + 1)
    assert not list(wrong_blobs())
    assert building(house) == before
    models = client.get(f"/api/projects/{house}/federation").json()["models"]
    for chunk in models[0]["chunks"]:
        assert client.get(f"/api/projects/{house}/blobs/{chunk['sha256']}").status_code == 200


def test_bytes_that_are_given_anew_are_kept_anew(house):
    sha = loose(house, b"given twice")
    in_days(0)
    loose(house, b"given twice")
    in_days(UNUSED_DAYS - 1)  # noted as unused only now
    assert sha in kept_blobs()
    in_days(2 * UNUSED_DAYS)
    assert sha not in kept_blobs()


@pytest.mark.parametrize("names_it", ["UPDATE project SET picture = :sha WHERE id = :project"])
def test_a_transaction_that_needs_bytes_has_them_until_it_ends(house, names_it):
    sha = loose(house, b"needed just now")
    in_days(0)
    with transaction() as session:
        assert blobs.keep(session, house, b"needed just now", "application/octet-stream") == sha
        in_days(UNUSED_DAYS + 1)  # while the other one goes on
        session.execute(text(names_it), {"sha": sha, "project": house})
    in_days(2 * UNUSED_DAYS)
    in_days(4 * UNUSED_DAYS)
    with transaction() as session:
        assert blobs.data_of(session, sha) == b"needed just now"


def test_bytes_that_a_row_names_again_are_not_removed(house):
    sha = loose(house, b"named again")
    in_days(0)
    with transaction() as session:
        # Within a document, where no key of the database holds it.
        session.execute(
            text("UPDATE task SET results = jsonb_build_object('x', CAST(:sha AS text)) WHERE project_id = :project"),
            {"sha": sha, "project": house},
        )
        session.execute(text("UPDATE project SET picture = :sha WHERE id = :project"), {"sha": sha, "project": house})
    in_days(UNUSED_DAYS + 1)
    assert sha in kept_blobs()
