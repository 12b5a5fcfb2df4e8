"""What version 0.1 kept opens whole: a dump of it, restored and brought to today's tables.

``kept/kept-0.1.sql.gz`` was made by that version: models, an earlier issue, a walk map, views of every kind of rule, cut,
measure and markup, a home, a link, a set, a route, checks, topics with all that hangs on them, and a meeting.
"""

from __future__ import annotations

import dataclasses
import gzip
import os
import subprocess
from pathlib import Path

import psycopg
import pytest
from fastapi.testclient import TestClient

from stairpath.core.exchange.bcf import opened
from stairpath.start.postgres import programs
from tests.building import resolved
from tests.core.test_exchange import BEAM, DUCT
from tests.exchanged import some_guid

KEPT = Path(__file__).parent / "kept"
FROM_ELSEWHERE = some_guid(7)
PROJECT = "ac92bce0d269444d9aee3c1589e9ada4"


@pytest.fixture(scope="module")
def before(database_url):
    """A client of the application on the restored database."""
    from stairpath.api.server import create_app
    from stairpath.settings import settings
    from stairpath.store import database, queue
    from stairpath.store.migrate import migrate

    name = "kept_before"
    # The application may not make databases; who keeps the cluster may.
    keeper = database_url.replace("://stairpath:", "://keeper:").rpartition("/")[0] + "/postgres"
    with psycopg.connect(keeper, autocommit=True) as connection:
        connection.execute(f"CREATE DATABASE {name} OWNER stairpath")
    url = database_url.rpartition("/")[0] + f"/{name}"
    dump = gzip.decompress((KEPT / "kept-0.1.sql.gz").read_bytes())
    subprocess.run(
        [str(programs() / "psql"), "-q", "-v", "ON_ERROR_STOP=1", url], input=dump, check=True, capture_output=True
    )
    caches = (settings, database.engine, queue._app)

    def use(address: str) -> None:
        database.engine().dispose()
        os.environ["STAIRPATH_DATABASE_URL"] = address
        for each in caches:
            each.cache_clear()

    use(url)
    try:
        migrate()
        with TestClient(create_app(), base_url="http://127.0.0.1") as opened_client:
            yield opened_client
    finally:
        use(database_url)


def get(client, path):
    answer = client.get(f"/api/{path}")
    assert answer.status_code == 200, (path, answer.text)
    return answer.json()


def test_every_list_of_the_project_is_there(before):
    head = get(before, f"projects/{PROJECT}/federation")
    assert [model["count"] for model in head["models"]] == [8, 3, 3, 3, 0]
    assert [model["name"] for model in get(before, f"projects/{PROJECT}/models")] == [
        "QH-ARC", "QH-AIR", "QH-WTR_option-A", "QH-WTR_option-B", "QH-STR",
    ]  # fmt: skip
    arc = head["models"][0]["id"]
    assert [issue["file_name"] for issue in get(before, f"models/{arc}/issues")] == ["QH-ARC.ifc"]
    assert get(before, f"models/{arc}/changes")["matched_by"] in ("global_id", "place")
    assert [f["name"] for f in get(before, f"projects/{PROJECT}/folders")] == ["Level 00", "Coordination 12"]
    (found,) = get(before, f"projects/{PROJECT}/sets")
    assert (found["name"], found["steps"], found["columns"]) == ("Walls", ["level"], ["tag"])
    (route,) = get(before, f"projects/{PROJECT}/routes")
    assert (route["name"], route["answer"]["found"]) == ("To the east", True)
    walking = get(before, f"projects/{PROJECT}/walking")
    assert (walking["current"], [b["name"] for b in walking["bodies"]][-1]) == (True, "cart")


def test_a_view_of_everything_is_as_it_was(before):
    everything = next(v for v in get(before, f"projects/{PROJECT}/viewpoints") if v["name"] == "Everything")
    view = everything["view"]
    assert [rule["effect"] for rule in view["rules"]] == ["hide", "fade", "tint", "show", "tint", "hide"]
    assert [cut["shape"]["kind"] for cut in view["cuts"]] == ["plane", "band", "box"]
    assert [each["what"]["kind"] for each in view["measures"]] == [
        "points", "between", "face", "sides", "room", "volume", "clear",
    ]  # fmt: skip
    assert [markup["kind"] for markup in view["markups"]] == [
        "cloud", "arrow", "callout", "text", "freehand", "line", "polyline", "rectangle", "ellipse",
    ]  # fmt: skip
    assert (view["style"], view["limits"]["depth_m"], view["frame"]["left"]) == ("lines", 30.0, -1.2)
    assert resolved(before, PROJECT, view["rules"])["hidden"] > 0
    taken_back = next(v for v in get(before, f"projects/{PROJECT}/viewpoints") if v["name"] == "Plain")
    assert taken_back["view"]["style"] == "clear"
    answer = before.post(f"/api/viewpoints/{taken_back['id']}/take-back")
    assert (answer.status_code, answer.json()["view"]["style"]) == (200, "edges")
    home = get(before, f"projects/{PROJECT}/federation")["home"]
    assert (home["author"], home["view"]["cuts"]) == ("Mara Oake", view["cuts"])
    assert get(before, f"projects/{PROJECT}/links/4a46be2842")["rules"] == view["rules"]


def test_checks_sheets_and_files_of_topics_have_what_came_of_them(before):
    tasks = {row["name"]: row for row in get(before, f"projects/{PROJECT}/tasks")}
    assert {name: row["status"] for name, row in tasks.items()} == {
        "from elsewhere.bcf": "done", "Plan": "done", "Air and walls": "done",
    }  # fmt: skip
    findings = get(before, f"tasks/{tasks['Air and walls']['id']}/findings")
    assert findings["checked"] == 42
    assert before.get(f"/api/tasks/{tasks['Plan']['id']}/sheet/svg").content.startswith(b"<svg")


def test_topics_and_the_meeting_are_whole(before, tmp_path):
    topics = {t["said"]["title"]: t for t in get(before, f"projects/{PROJECT}/topics")}
    first = topics["Duct over the wall"]
    assert (first["reference"], topics["The same, further on"]["reference"]) == ("ARC-AIR 0001", "0001 b")
    assert first["said"]["assigned_to"] == "Tam Kerr"
    assert first["question"]["answer"] == "Yes, by 40 mm."
    told = get(before, f"topics/{first['id']}")
    assert [file["name"] for file in told["files"]] == ["note.pdf"]
    assert any(note["text"] == "Measured: 720 mm." for note in told["notes"])
    (meeting,) = get(before, f"projects/{PROJECT}/meetings")
    held = get(before, f"meetings/{meeting['id']}")
    assert [point["text"] for point in held["points"]] == ["Lower it by 40 mm."]
    assert before.get(f"/api/meetings/{meeting['id']}/minutes?form=html").status_code == 200
    # What goes out is what that version wrote, with the views whole.
    now = tmp_path / "now.bcf"
    now.write_bytes(before.get(f"/api/projects/{PROJECT}/topics/file", params={"version": "3.0"}).content)
    with opened(now) as there, opened(KEPT / "topics-0.1.bcf") as then:
        for mine, theirs in zip(there.topics(), then.topics(), strict=True):
            views = tuple(as_then(*pair) for pair in zip(mine.viewpoints, theirs.viewpoints, strict=True))
            assert (mine.title, mine.comments, mine.related, views) == (
                theirs.title, theirs.comments, theirs.related, theirs.viewpoints,
            )  # fmt: skip


def as_then(now, then):
    """A viewpoint without what that version lost of it: colours of what is hidden, components that no model had."""
    if now.guid == FROM_ELSEWHERE:
        assert (now.default_visible, [c.global_id for c in now.exceptions]) == (False, [DUCT, BEAM])
        assert [(c.colour, [each.global_id for each in c.components]) for c in now.colours] == [("#d98032", [BEAM])]
        return dataclasses.replace(
            now, default_visible=then.default_visible, exceptions=then.exceptions, colours=then.colours
        )
    hidden = set(now.exceptions) if now.default_visible else set()
    colours = [
        dataclasses.replace(each, components=tuple(c for c in each.components if c not in hidden))
        for each in now.colours
    ]
    return dataclasses.replace(now, colours=tuple(each for each in colours if each.components))
