"""The walk map, stops, landings and routes, asked through the API."""

import gzip

import numpy as np
import pytest

from stairpath.core.walking.bodies import BODIES
from stairpath.core.walking.tile import unpack
from tests.api.conftest import GAP
from tests.samples import Sample


def walking(client, project, body="standing"):
    answer = client.get(f"/api/projects/{project}/walking", params={"body": body})
    assert answer.status_code == 200
    return answer.json()


def test_the_map_is_made_after_reading_and_its_tiles_are_sent(client, house):
    info = walking(client, house)
    assert info["current"] is True
    assert [b["name"] for b in info["bodies"]] == list(BODIES)
    place = (0, 0)
    tile = next(t for t in info["tiles"] if (t["x"], t["y"]) == place)
    sent = client.get(f"/api/projects/{house}/walk-tiles/{tile['sha256']}")
    assert sent.headers["cache-control"].endswith("immutable")
    assert sent.headers["content-encoding"] == "gzip"
    read, names = unpack(gzip.compress(sent.content))
    assert read.place == place
    assert (read.height_mm == 0).sum() > 500
    assert {len(name) for name in names} == {2}


def test_a_new_issue_makes_only_what_it_touches_again(client, house, send, work, database_url):
    def hashes():
        return {(t["x"], t["y"]): t["sha256"] for t in walking(client, house)["tiles"]}

    far = Sample()
    shed = far.storey("Level 00", 0)
    far.box(shed, (40, 1, -0.3), (3, 3, 0.3), "IfcSlab", Name="Shed floor")
    send(house, "T-SHED.ifc", far)
    work()
    before = hashes()
    far.box(shed, (41, 2, 0), (0.5, 0.5, 1), "IfcColumn", Name="Post")
    send(house, "T-SHED.ifc", far)
    work()
    after = hashes()
    changed = {place for place in after if before.get(place) != after[place]}
    assert changed
    assert all(x >= 2 for x, _ in changed)
    assert (0, 0) in before


def test_a_rule_lets_one_walk_through_a_class_and_an_own_body_gets_a_map(client, house, ask, work):
    far = {"room": 0}, {"room": 1}
    wide = {"name": "bench", "radius_m": 0.45, "height_m": 1.2, "step_up_m": 0.02, "step_down_m": 0.02, "slope": 0.1}
    rule = {"passable": ["IfcVirtualElement"], "doors_locked": False, "bodies": [wide]}
    assert client.put(f"/api/projects/{house}/walking/rule", json=rule).status_code == 204
    assert walking(client, house)["current"] is False
    # The map that is there is used until the new one is made.
    assert ask("routes/find", start=far[0], end=far[1])["found"] is True
    work()
    assert walking(client, house)["bodies"][-1] == {**wide, "speed_m_s": 1.4, "own": True}
    assert ask("routes/find", start=far[0], end=far[1], body="bench")["found"] is False
    client.put(f"/api/projects/{house}/walking/rule", json={**rule, "passable": ["IfcWall"]})
    work()
    now = client.get(f"/api/projects/{house}/walking/rule").json()
    assert (now["passable"], now["doors_locked"], now["cell_cm"]) == (["IfcWall"], False, 10)
    assert now["classes"] == ["IfcSlab", "IfcWall"]
    assert [body["name"] for body in now["bodies"]] == ["bench"]
    assert ask("routes/find", start=far[0], end=far[1], body="bench")["found"] is True


def test_finer_cells_make_the_map_anew_and_measure_the_same(client, house, ask, work):
    wish = {"start": {"room": 0}, "end": {"room": 1}}
    coarse = ask("routes/find", **wish)
    assert client.put(f"/api/projects/{house}/walking/rule", json={"passable": [], "cell_cm": 5}).status_code == 204
    work()
    info = walking(client, house)
    assert info["cell_m"] == 0.05
    tile = next(t for t in info["tiles"] if (t["x"], t["y"]) == (0, 0))
    read, _ = unpack(gzip.compress(client.get(f"/api/projects/{house}/walk-tiles/{tile['sha256']}").content))
    assert len(read.floors) == round(info["tile_m"] / 0.05) ** 2
    fine = ask("routes/find", **wish)
    assert fine["narrowest"]["size_m"] == pytest.approx(coarse["narrowest"]["size_m"], abs=0.005)
    assert fine["length_m"] == pytest.approx(coarse["length_m"], abs=0.1)


def test_where_to_stand_in_each_room_is_known_with_the_map(client, house, ask, origin):
    stands = {stand["room"]: stand for stand in walking(client, house)["stands"]}
    assert set(stands) == {0, 1}
    landing = ask("walking/landing", body="standing", kind="room", room=1)
    assert stands[1]["at_m"] == pytest.approx(landing["at_m"], abs=1e-3)
    assert stands[1]["bearing_deg"] == landing["bearing_deg"]
    client.put(f"/api/projects/{house}/walking/rule", json={"passable": []})
    assert walking(client, house)["stands"] == []


@pytest.mark.parametrize(
    ("body", "words"),
    [
        ({"name": "standing"}, "Choose names that differ"),
        ({"name": "giant", "radius_m": 9}, "radius of 9 m"),
    ],
)
def test_bodies_that_cannot_be_are_refused(client, house, body, words):
    whole = {"name": "x", "radius_m": 0.3, "height_m": 1, "step_up_m": 0, "step_down_m": 0, "slope": 0, **body}
    answer = client.put(f"/api/projects/{house}/walking/rule", json={"passable": [], "bodies": [whole]})
    assert answer.status_code == 422
    assert words in answer.json()["detail"]


def test_a_stop_is_named_with_its_model_and_clear_size(ask):
    stop = ask("walking/stop", body="wheelchair", at_m=[3.78, 1.36, 0], towards_m=[1, 0, 0])
    assert stop["kind"] == "width"
    assert stop["found_m"] == pytest.approx(GAP, abs=0.01)
    assert stop["needed_m"] == 0.8
    assert stop["component"]["label"] in ("Wall W-1", "Wall W-2")
    assert stop["component"]["model_name"] == "T-ARC"
    assert stop["sentence"] == f"{stop['component']['label']} of T-ARC, architecture: {GAP:.2f} m clear, 0.80 m needed"
    wall = ask("walking/stop", body="standing", at_m=[0.3, 1.5, 0], towards_m=[-1, 0, 0])
    assert (wall["kind"], wall["component"]["label"], wall["found_m"]) == ("solid", "Wall W-W", None)
    edge = ask("walking/stop", body="standing", at_m=[3.97, 1.5, 3], towards_m=[1, 0, 0])
    assert (edge["kind"], edge["component"]["label"]) == ("edge", "Deck S-2")


def test_landings(ask, origin):
    room = ask("walking/landing", body="standing", kind="room", room=1)
    at = np.array(room["at_m"]) + origin
    assert at == pytest.approx([6.2, 1.5, 0], abs=0.3)
    up = ask("walking/landing", body="standing", kind="storey", at_m=[1, 2, 0], up=1)
    assert np.array(up["at_m"]) + origin == pytest.approx([1, 2, 3], abs=0.1)
    assert up["level"] == 1
    aside = ask("walking/landing", body="standing", kind="storey", at_m=[7, 2, 0], up=1)
    assert (np.array(aside["at_m"]) + origin)[0] == pytest.approx(3.95, abs=0.1)
    through = ask("walking/landing", body="standing", kind="behind", at_m=[4, 2.5, 0], towards_m=[1, 0, 0])
    assert (np.array(through["at_m"]) + origin)[0] == pytest.approx(4.2 + 0.25, abs=0.11)
    floor = ask("walking/landing", body="standing", kind="floor", at_m=[2, 2, 0])
    assert np.array(floor["at_m"]) + origin == pytest.approx([2, 2, 0], abs=0.08)


@pytest.mark.parametrize(
    ("wish", "status", "words"),
    [
        ({"kind": "storey", "at_m": [1, 2, 0], "up": -1}, 422, "no storey below"),
        ({"kind": "room", "room": 99}, 404, "no such room"),
        ({"kind": "floor", "at_m": [500, 2, 0]}, 422, "no floor"),
        ({"kind": "behind", "at_m": [0, 2, 0], "towards_m": [-1, 0, 0]}, 422, "no floor within 6 m"),
        ({"kind": "floor", "at_m": [1, 1, 0], "body": "giant"}, 404, "Nobody called giant"),
    ],
)
def test_landings_that_are_not_there_are_told(ask, wish, status, words):
    assert words in ask("walking/landing", status, **{"body": "standing", **wish})["detail"]


def test_there_is_nothing_to_walk_in_before_a_model_is_read(client, project):
    info = walking(client, project)
    assert (info["current"], info["tiles"]) == (False, [])
    answer = client.post(f"/api/projects/{project}/routes/find", json={"start": {"room": 0}, "end": {"room": 1}})
    assert answer.status_code == 409
    assert "no model to walk in" in answer.json()["detail"]


def test_no_map_is_current_while_the_building_is_put_together_anew(client, house, work):
    assert client.get(f"/api/projects/{house}/walking").json()["current"] is True
    assert client.post(f"/api/projects/{house}/federation").status_code == 202
    assert client.get(f"/api/projects/{house}/walking").json()["current"] is False
    work()
    assert client.get(f"/api/projects/{house}/walking").json()["current"] is True
    assert client.post("/api/projects/nowhere/federation").status_code == 404
