"""Routes asked for through the API: found, kept, handed on, and refused in a sentence."""

import csv
import io
import json

import numpy as np
import pytest

from tests.api.conftest import GAP
from tests.samples import Sample

ACROSS = {"start": {"room": 0, "label": "0.01 West"}, "end": {"room": 1, "label": "0.02 East"}}


def test_a_route_is_found_kept_and_handed_on(client, house, ask, origin):
    wish = {"start": {"room": 0, "label": "0.01 West"}, "end": {"room": 1, "label": "0.02 East"}}
    answer = ask("routes/find", **wish)
    assert answer["found"] is True
    assert answer["narrowest"]["size_m"] == pytest.approx(GAP, abs=0.01)
    assert {c["label"] for c in answer["narrowest"]["components"]} == {"Wall W-1", "Wall W-2"}
    kept = ask("routes", 201, name="To the east", wish=wish)
    assert client.get(f"/api/projects/{house}/routes").json()[0]["answer"] == kept["answer"]

    at = np.array(answer["points_m"][0]) + origin
    whole = client.get(f"/api/routes/{kept['id']}/json").json()
    assert whole["points_m"][0] == pytest.approx(at.tolist(), abs=1e-3)
    assert whole["name"] == "To the east"
    drawn = client.get(f"/api/routes/{kept['id']}/geojson").json()
    assert drawn["type"] == "FeatureCollection"
    line, *pinches = drawn["features"]
    assert line["geometry"]["coordinates"] == whole["points_m"]
    assert [p["geometry"]["type"] for p in pinches] == ["Point"]
    rows = list(csv.DictReader(io.StringIO(client.get(f"/api/routes/{kept['id']}/csv").text)))
    assert float(rows[0]["size_m"]) == pytest.approx(GAP, abs=0.01)
    assert "T-ARC" in rows[0]["components"]

    assert client.delete(f"/api/routes/{kept['id']}").status_code == 204
    assert client.get(f"/api/projects/{house}/routes").json() == []
    assert client.get(f"/api/routes/{kept['id']}/json").status_code == 410
    assert client.post(f"/api/routes/{kept['id']}/restore").status_code == 204
    assert len(client.get(f"/api/projects/{house}/routes").json()) == 1


def test_where_there_is_one_gap_no_other_way_is_offered(ask):
    assert ask("routes/others", **ACROSS) == []
    assert "give a room or a point" in ask("routes/others", 422, start={"room": 0}, end={})["detail"]


def test_a_kept_route_stays_where_it_is_when_the_origin_moves(client, house, ask, origin, send, work):
    wish = {"start": {"point_m": (np.array([1.03, 1.54, 0]) - origin).tolist()}, "end": {"room": 1}}
    kept = ask("routes", 201, name="From a point", wish=wish)
    far = Sample()
    far.box(far.storey("Level 00", 0), (400, 300, -0.3), (3, 3, 0.3), "IfcSlab", Name="Far pad")
    send(house, "T-FAR.ifc", far)
    work()
    moved = np.array(client.get(f"/api/projects/{house}/federation").json()["origin_m"])
    assert np.abs(moved - origin).max() > 50
    after = client.get(f"/api/projects/{house}/routes").json()[0]
    for points in (lambda route: [route["wish"]["start"]["point_m"]], lambda route: route["answer"]["points_m"]):
        assert np.array(points(after)) + moved == pytest.approx(np.array(points(kept)) + origin, abs=1e-3)
    sent = client.get(f"/api/routes/{kept['id']}/json").json()
    assert sent["wish"]["start"]["point_m"] == pytest.approx([1.03, 1.54, 0], abs=1e-3)
    assert sent["points_m"][0] == pytest.approx([1.03, 1.54, 0], abs=1e-3)


def test_what_a_route_needs_can_be_had_ready(client, house, ask):
    assert client.post(f"/api/projects/{house}/routes/ready").status_code == 202
    assert client.post(f"/api/projects/{house}/routes/ready", params={"body": "giant"}).status_code == 404
    assert ask("routes/find", start={"room": 0}, end={"room": 1})["found"] is True


def test_no_way_says_what_blocks(ask):
    wish = {"start": {"room": 0}, "end": {"room": 1}}
    answer = ask("routes/find", **wish, body="wheelchair")
    assert answer["found"] is False
    assert answer["blocked"]["needs"] == "0.72 m wide, 0.80 m needed: 0.08 m wider."
    assert {c["label"] for c in answer["blocked"]["components"]} == {"Wall W-1", "Wall W-2"}
    assert "give a room or a point" in ask("routes/find", 422, start={"room": 0}, end={})["detail"]
    assert json.dumps(answer)


def test_what_blocks_is_handed_on_as_a_point_where_the_way_ends(client, ask, origin):
    kept = ask("routes", 201, name="No way", wish={**ACROSS, "body": "wheelchair"})
    nearest = np.array(kept["answer"]["blocked"]["nearest_m"]) + origin
    (feature,) = client.get(f"/api/routes/{kept['id']}/geojson").json()["features"]
    assert feature["geometry"]["type"] == "Point"
    assert feature["geometry"]["coordinates"] == pytest.approx(nearest.tolist(), abs=1e-3)
    assert feature["properties"]["needs"] == "0.72 m wide, 0.80 m needed: 0.08 m wider."
    assert feature["properties"]["name"] == "No way"
    assert len(feature["properties"]["components"]) == 2
    assert list(csv.DictReader(io.StringIO(client.get(f"/api/routes/{kept['id']}/csv").text))) == []


def test_from_a_place_to_itself_is_a_way_of_no_length(client, ask):
    wish = {"start": {"room": 0}, "end": {"room": 0}}
    answer = ask("routes/find", **wish)
    assert answer["found"] is True
    assert (answer["length_m"], answer["risers"], answer["time_s"]) == (0, 0, 0)
    kept = ask("routes", 201, name="Nowhere", wish=wish)
    line = client.get(f"/api/routes/{kept['id']}/geojson").json()["features"][0]["geometry"]
    # A line has two ends, if only in one place.
    assert len(line["coordinates"]) >= 2


def test_limits_say_which_places_are_tight(ask):
    wide = ask("routes/find", **ACROSS, width_limit_m=0.7)
    assert wide["pinches"] == []
    assert wide["narrowest"]["size_m"] == pytest.approx(GAP, abs=0.01)
    tight = ask("routes/find", **ACROSS, width_limit_m=0.75)
    assert [p["what"] for p in tight["pinches"]] == ["width"]
    assert tight["pinches"][0]["along_m"] == pytest.approx(tight["narrowest"]["along_m"], abs=0.01)


@pytest.mark.parametrize(
    ("wish", "status", "words"),
    [
        ({"body": "giant"}, 404, "Nobody called giant walks here; take standing,"),
        ({"end": {"room": 7}}, 404, "There is no such room; reload the page."),
        ({"start": {"room": -1}}, 404, "There is no such room; reload the page."),
        ({"end": {"point_m": [900, 900, 0], "label": "the quay"}}, 422, "There is no floor at the quay; give a point"),
        ({"width_limit_m": 9}, 422, "A limit for pinches is up to 3 m for widths"),
        ({"height_limit_m": -1}, 422, "A limit for pinches is up to 3 m for widths"),
        ({"start": {}}, 422, "A route needs a place to begin and one to end"),
    ],
)
def test_what_cannot_be_asked_is_told_in_a_sentence(ask, wish, status, words):
    assert ask("routes/find", status, **{**ACROSS, **wish})["detail"].startswith(words)


def test_kept_routes_are_listed_newest_first_and_have_a_name(client, house, ask):
    for name in ("First", "  ", "Third é/ü"):
        ask("routes", 201, name=name or " ", wish=ACROSS)
    listed = client.get(f"/api/projects/{house}/routes").json()
    assert [r["name"] for r in listed] == ["Third é/ü", "Untitled", "First"]
    head = client.get(f"/api/routes/{listed[0]['id']}/csv").headers
    assert head["Content-Type"] == "text/csv; charset=utf-8"
    assert head["Content-Disposition"] == "attachment; filename*=utf-8''Third%20%C3%A9%2F%C3%BC.csv"


def test_a_route_that_is_gone_is_told_and_another_project_has_none_of_it(client, house, ask):
    kept = ask("routes", 201, name="To the east", wish=ACROSS)
    other = client.post("/api/projects", json={"name": "Other"}).json()["id"]
    assert client.get(f"/api/projects/{other}/routes").json() == []
    client.delete(f"/api/routes/{kept['id']}")
    for answer in (client.delete(f"/api/routes/{kept['id']}"), client.get(f"/api/routes/{kept['id']}/csv")):
        assert answer.status_code == 410
        assert answer.json()["detail"] == "The route To the east was deleted. Restore it first."
    assert client.post("/api/routes/none/restore").status_code == 404
    assert client.get(f"/api/routes/{kept['id']}/pdf").status_code == 422
