"""The federation as content: a small head, columns by hash; alignment by hand; what goes wrong is said."""

from __future__ import annotations

import io
import zipfile

import pytest

from stairpath.core.sandbox import CrashedError, TooLongError, TooMuchMemoryError
from stairpath.work.models import federating, reading
from stairpath.work.walking import walk_map
from tests.api.test_views import keep, view_of
from tests.asking import by
from tests.samples import Sample, simple


def head(client, project, **headers):
    return client.get(f"/api/projects/{project}/federation", headers=headers)


def card(client, project, name):
    return next(c for c in client.get(f"/api/projects/{project}/models").json() if c["name"] == name)


@pytest.fixture
def pair(client, project, send, work):
    send(project, "T-ARC.ifc", simple())
    send(project, "T-STR.ifc", simple())
    work()
    return project


@pytest.fixture
def project_beside(client):
    return client.post("/api/projects", json={"name": "Beside"}, headers=by("Tom Reed")).json()["id"]


def test_an_asker_who_knows_the_head_is_told_so(client, pair, send, work):
    first = head(client, pair)
    tag = first.headers["ETag"]
    assert head(client, pair, **{"If-None-Match": tag}).status_code == 304
    assert head(client, pair, **{"If-None-Match": f'W/{tag}, "other"'}).status_code == 304
    client.put(f"/api/projects/{pair}/name", json={"name": "Otherwise"})
    changed = head(client, pair, **{"If-None-Match": tag})
    assert changed.status_code == 200
    assert changed.json()["name"] == "Otherwise"


def test_only_what_changed_gets_another_hash(client, pair, send, work):
    before = {m["name"]: m for m in head(client, pair).json()["models"]}
    more = simple()
    more.box(more.ifc.by_type("IfcBuildingStorey")[0], (0, 0, 0), (1, 1, 1), Name="More")
    send(pair, "T-STR.ifc", more)
    work()
    after = {m["name"]: m for m in head(client, pair).json()["models"]}
    assert (after["T-ARC"]["named"], after["T-ARC"]["placed"]) == (before["T-ARC"]["named"], before["T-ARC"]["placed"])
    assert after["T-STR"]["named"] != before["T-STR"]["named"]
    assert (after["T-STR"]["first"], after["T-STR"]["count"]) == (1, 2)


def test_columns_never_change_and_are_told_apart_from_other_bytes(client, pair):
    (model, _) = head(client, pair).json()["models"]
    answer = client.get(f"/api/projects/{pair}/columns/{model['named']}")
    assert "immutable" in answer.headers["cache-control"]
    assert answer.headers["content-encoding"] == "gzip"
    again = client.get(
        f"/api/projects/{pair}/columns/{model['named']}", headers={"If-None-Match": answer.headers["etag"]}
    )
    assert again.status_code == 304
    assert client.get(f"/api/projects/{pair}/columns/{model['chunks'][0]['sha256']}").status_code == 404
    assert client.get(f"/api/projects/{pair}/columns/nothing").status_code == 422


def test_a_model_is_aligned_by_hand_and_goes_back_to_its_evidence(client, pair, work):
    model = card(client, pair, "T-STR")["id"]
    wish = {"by": "hand", "rotation_deg": 90, "shift_m": [10, 20, 3]}
    headers = {"X-Author": "Ida%20Fenn"}
    assert client.put(f"/api/models/{model}/alignment", json=wish, headers=headers).status_code == 204
    work()
    found = card(client, pair, "T-STR")
    assert (found["aligned_by"], found["aligned_set"], found["shift_m"]) == ("hand", "hand", [10, 20, 3])
    assert found["aligned_reason"] == "turn and shift set by hand (by Ida Fenn)"
    assert client.put(f"/api/models/{model}/alignment", json={"by": None}).status_code == 204
    work()
    assert card(client, pair, "T-STR")["aligned_by"] == "placement"
    assert card(client, pair, "T-STR")["aligned_set"] is None
    no_map = client.put(f"/api/models/{model}/alignment", json={"by": "map"})
    assert no_map.status_code == 409
    assert "has no map conversion" in no_map.json()["detail"]


def test_a_model_is_aligned_by_two_of_its_points(client, pair, work, building):
    model = card(client, pair, "T-STR")["id"]
    origin = head(client, pair).json()["origin_m"]

    def about(*at):
        return [a - o for a, o in zip(at, origin, strict=True)]

    wish = {
        "first_m": about(1, 2, 0), "first_place_m": about(101, 50, 6),
        "second_m": about(5, 2, 0), "second_place_m": about(101, 54, 6),
    }  # fmt: skip
    assert client.put(f"/api/models/{model}/alignment/points", json=wish).status_code == 204
    work()
    (_, second) = building(pair)["models"]
    global_id = second["global_ids"][0]
    bounds = client.get(f"/api/models/{model}/components/{global_id}").json()["bounds_m"]
    assert bounds == pytest.approx([100.8, 50, 6, 101, 54, 9], abs=1e-6)
    same = {**wish, "second_m": wish["first_m"]}
    refused = client.put(f"/api/models/{model}/alignment/points", json=same)
    assert refused.status_code == 422
    assert "coincide on plan" in refused.json()["detail"]


def test_fits_mean_the_building_and_say_what_lies_elsewhere(client, project, send, work):
    far = Sample()
    far.box(far.storey("Level 00", 0), (90_000, 0, 0), (1, 1, 1))
    near = simple()
    near.box(near.ifc.by_type("IfcBuildingStorey")[0], (0, 0, 0), (1, 1, 1))
    send(project, "T-ARC.ifc", near)
    send(project, "T-FAR.ifc", far)
    work()
    wish = {"bearing_deg": 0, "tilt_deg": 0, "aspect": 1, "projection": "parallel"}
    pose = client.post(f"/api/projects/{project}/frame", json=wish).json()
    assert pose["height_m"] < 10
    assert pose["elsewhere"] == ["T-FAR"]
    assert card(client, project, "T-FAR")["elsewhere"] is True
    assert client.get(f"/api/projects/{project}/walking").json()["current"] is True
    (model,) = [m for m in head(client, project).json()["models"] if m["name"] == "T-FAR"]
    assert model["elsewhere"] is True


@pytest.mark.parametrize(
    ("error", "words"),
    [
        (TooMuchMemoryError("", "", 900), "a.ifc needs more than the 900 MB of memory that reading a file may take"),
        (TooLongError("", "3abc", 61.0), "a.ifc took longer than allowed (61 s, last at component 3abc)"),
        (CrashedError("", "", "SIGSEGV"), "a.ifc crashed its reader (SIGSEGV)"),
        (
            CrashedError("", "", "SIGKILL"),
            "The process that read a.ifc was killed, most likely because the machine ran",
        ),
    ],
)
def test_each_failure_says_its_own_reason(client, project, send, work, monkeypatch, error, words):
    def ends(*args, **more):
        raise error

    monkeypatch.setattr(reading, "run_sandboxed", ends)
    send(project, "a.ifc", simple())
    work()
    found = card(client, project, "a")
    assert found["status"] == "failed"
    assert found["message"].startswith(words)


@pytest.mark.parametrize("at", [federating, walk_map])
def test_a_building_that_cannot_be_made_says_why_and_is_tried_again_when_something_changes(
    client, project, send, work, monkeypatch, at
):
    def ends(*args, **more):
        raise TooMuchMemoryError("", "", 900)

    with monkeypatch.context() as patched:
        patched.setattr(at, "run_sandboxed", ends)
        model = send(project, "a.ifc", simple()).json()[0]["id"]
        work()
    trouble = client.get(f"/api/projects/{project}/walking").json()["trouble"]
    assert "needs more than the 900 MB of memory" in trouble
    assert head(client, project).json()["trouble"] == trouble
    client.put(f"/api/models/{model}/discipline", json={"code": "FIT"})
    work()
    now = client.get(f"/api/projects/{project}/walking").json()
    assert (now["trouble"], now["current"], now["making"]) == ("", True, None)


def test_a_corrected_discipline_leaves_routes_as_they_are_meanwhile_and_its_map_follows(client, house, ask, work):
    model = client.get(f"/api/projects/{house}/models").json()[0]["id"]
    client.put(f"/api/models/{model}/discipline", json={"code": "FIT"})
    assert ask("routes/find", start={"room": 0}, end={"room": 1})["found"] is True
    work()
    assert client.get(f"/api/projects/{house}/walking", params={"body": "standing"}).json()["current"] is True
    assert ask("routes/find", start={"room": 0}, end={"room": 1})["found"] is True


def test_a_stream_of_an_unknown_project_is_refused(client):
    answer = client.get(f"/api/projects/{'0' * 32}/events")
    assert answer.status_code == 404
    assert answer.json()["detail"].startswith("There is no such project")


def test_what_is_kept_in_memory_outlives_a_request_that_was_refused(client, pair, send, work):
    """What a transaction loaded and then gave up is of no use to the next one."""
    send(pair, "QH-NEW.ifc", simple())
    work()
    look = {"bearing_deg": 0, "tilt_deg": 0, "aspect": 1}
    assert client.post(f"/api/projects/{pair}/frame", json={**look, "room": 999}).status_code == 404
    assert client.get(f"/api/projects/{pair}/federation").status_code == 200
    assert client.get(f"/api/projects/{pair}/models").status_code == 200


def test_what_is_kept_in_memory_is_never_older_than_the_rows(client, pair, send, work):
    """Each change of project or models shows in the next answer, whoever made it."""
    first = head(client, pair).json()
    assert [c["name"] for c in client.get(f"/api/projects/{pair}/models").json()] == ["T-ARC", "T-STR"]
    model = card(client, pair, "T-STR")["id"]
    client.delete(f"/api/models/{model}")
    assert [c["name"] for c in client.get(f"/api/projects/{pair}/models").json()] == ["T-ARC"]
    assert [m["name"] for m in head(client, pair).json()["models"]] == ["T-ARC"]
    client.post(f"/api/models/{model}/restore")
    assert [m["name"] for m in head(client, pair).json()["models"]] == ["T-ARC", "T-STR"]
    work()
    assert head(client, pair).json()["version"] > first["version"]
    client.put(f"/api/projects/{pair}/name", json={"name": "Again"})
    assert head(client, pair).json()["name"] == "Again"
    client.delete(f"/api/projects/{pair}")
    assert head(client, pair).status_code == 410


def test_a_hash_is_no_key_to_what_another_project_has(client, pair, project_beside):
    (model, _) = head(client, pair).json()["models"]
    (level, *_) = head(client, pair).json()["levels"]
    for kind, sha in (
        ("columns", model["named"]), ("columns", model["placed"]), ("blobs", model["chunks"][0]["sha256"]),
        ("keyplans", level["plan"]),
    ):  # fmt: skip
        assert client.get(f"/api/projects/{pair}/{kind}/{sha}").status_code == 200
        refused = client.get(f"/api/projects/{project_beside}/{kind}/{sha}")
        assert (refused.status_code, refused.json()["detail"]) == (404, "There is no such file; reload the page.")


def test_a_view_that_names_a_hash_of_another_project_brings_none_of_its_bytes(client, pair, project_beside):
    (model, _) = head(client, pair).json()["models"]
    hung = {
        "sha256": model["chunks"][0]["sha256"], "at_m": [0, 0, 0], "normal": [1, 0, 0], "up": [0, 0, 1], "height_m": 1.0,
    }  # fmt: skip
    kept = keep(client, project_beside, view=view_of() | {"pictures": [hung]})
    assert kept.status_code == 201, kept.text
    out = client.get(f"/api/projects/{project_beside}/viewpoints/file", params={"view": kept.json()["id"]})
    with zipfile.ZipFile(io.BytesIO(out.content)) as held:
        assert all(b"glTF" not in held.read(name) for name in held.namelist())
