"""Measures from the server: what they come to, what the cursor catches, and measures kept with a view."""

from __future__ import annotations

import base64

import numpy as np
import pytest

from tests.api.test_seeing import ducts
from tests.api.test_views import png, rule, view_of
from tests.samples import Sample


@pytest.fixture
def air():
    return ducts()


def hall():
    """A room of 6 x 5 with a floor, a ceiling at 2.7 and walls on two sides."""
    sample = Sample()
    storey = sample.storey("Level 00", 0.0)
    for at, size in (((0, 0, -0.3), (6, 5, 0.3)), ((0, 0, 2.7), (6, 5, 0.3)), ((0, 0, 0), (0.2, 5, 2.7)),
                     ((5.8, 0, 0), (0.2, 5, 2.7))):  # fmt: skip
        sample.box(storey, at, size, "IfcSlab" if size[2] == 0.3 else "IfcWall", Name="Part", Tag=f"P-{at[0]}-{at[2]}")
    sample.room(storey, "0.01", "Hall", (0.2, 0, 0), (5.6, 5, 2.7))
    return sample


@pytest.fixture
def house(client, project, send, work, air):
    send(project, "QH-ARC.ifc", hall())
    send(project, "QH-AIR.ifc", air)
    work()
    return project


@pytest.fixture
def refs(client, house, air):
    """The three ducts, as the page names them."""
    models = client.get(f"/api/projects/{house}/federation").json()["models"]
    model = next(m["id"] for m in models if m["name"] == "QH-AIR")
    return [{"model": model, "global_id": duct.GlobalId} for duct in air.ifc.by_type("IfcDuctSegment")]


def measured(client, project, *whats):
    wish = [{"id": str(k), "what": what} for k, what in enumerate(whats)]
    answer = client.post(f"/api/projects/{project}/measures", json={"measures": wish})
    assert answer.status_code == 200, answer.text
    return answer.json()["found"]


def figures(found):
    return {figure["name"]: figure["value"] for figure in found["figures"]}


def test_points_and_components_come_to_figures_and_lines_about_the_origin(client, house, refs):
    points, between = measured(
        client,
        house,
        {"kind": "points", "points_m": [[0, 0, 0], [3, 4, 0]], "main": "plan"},
        {"kind": "between", "a": refs[0], "b": refs[1]},
    )
    assert figures(points)["plan"] == pytest.approx(5)
    assert points["figures"][0]["name"] == "plan"
    assert figures(between)["distance"] == pytest.approx(0.6)
    assert [part["label"] for part in between["of"]] == ["AD-0", "AD-1"]
    assert [part["role"] for part in between["of"]] == ["from", "to"]
    origin = np.array(client.get(f"/api/projects/{house}/federation").json()["origin_m"])
    line = np.array(between["dimensions"][0]["line"]) + origin
    assert line[:, 0] == pytest.approx([0.4, 1.0])


def test_faces_areas_volumes_and_what_is_gone(client, house, refs):
    top = {"of": refs[0], "point_m": [0.2, 7.5, 2.4]}
    side = {"kind": "face", "of": refs[1], "point_m": [1.0, 7, 2.1]}
    square, face, volume, gone = measured(
        client,
        house,
        {"kind": "sides", "a": {"kind": "face", "of": refs[0], "point_m": [0.4, 7, 2.2]}, "b": side},
        {"kind": "face", "face": top},
        {"kind": "volume", "of": refs},
        {"kind": "between", "a": refs[0], "b": {"model": refs[0]["model"], "global_id": "gone"}},
    )
    assert figures(square) == pytest.approx({"square": 0.6, "angle": 0})
    assert figures(face) == pytest.approx({"area": 1.2, "perimeter": 6.8})
    assert figures(volume)["volume"] == pytest.approx(3 * 0.4 * 3 * 0.4)
    assert gone["figures"] == []
    assert "is gone" in gone["trouble"]


def test_a_room_has_a_floor_and_a_point_of_it_so_much_height(client, house):
    head = client.get(f"/api/projects/{house}/federation").json()
    room = head["rooms"][0]
    found, clear, nowhere = measured(
        client,
        house,
        {"kind": "room", "room": {"model": room["model"], "global_id": room["global_id"]}},
        {"kind": "clear", "at_m": [3, 2.5, 0]},
        {"kind": "clear", "at_m": [300, 300, 0]},
    )
    assert figures(found) == pytest.approx({"area": 28, "perimeter": 21.2})
    assert found["of"][0]["label"] == "0.01 Hall"
    assert figures(clear) == pytest.approx({"clear_height": 2.7, "clear_width": 5.6})
    assert [part["role"] for part in clear["of"]] == ["floor", "above", "beside", "beside"]
    assert "no floor" in nowhere["trouble"]


def test_what_is_hidden_is_not_there_for_the_room_at_a_point_but_said(client, house):
    room = {"kind": "clear", "at_m": [3, 2.5, 0]}

    def with_hidden(tag):
        rules = [rule({"kind": "of", "what": "tag", "value": tag}, "hide")]
        answer = client.post(
            f"/api/projects/{house}/measures", json={"measures": [{"id": "1", "what": room}], "rules": rules}
        )
        (found,) = answer.json()["found"]
        return found

    ceiling = with_hidden("P-0-2.7")
    assert figures(ceiling) == pytest.approx({"clear_width": 5.6, "hidden_height": 2.7})
    assert "open" in ceiling["note"]
    assert [part["role"] for part in ceiling["of"]] == ["floor", "beside", "beside", "above_hidden"]
    wall = with_hidden("P-5.8-0")
    assert figures(wall) == pytest.approx({"clear_height": 2.7, "hidden_width": 5.6})
    assert {part["label"] for part in wall["of"] if part["role"] == "beside_hidden"} == {"P-0-0", "P-5.8-0"}
    assert "hidden_height" not in figures(with_hidden("nothing"))


def test_the_cursor_catches_corners_and_centre_lines_exactly(client, house, refs):
    origin = np.array(client.get(f"/api/projects/{house}/federation").json()["origin_m"])
    address = f"/api/projects/{house}/models/{refs[0]['model']}/catches/{refs[0]['global_id']}"
    found = {
        name: np.frombuffer(base64.b64decode(text), "<f8").reshape(-1, 3) + origin
        for name, text in client.get(address).json().items()
    }
    assert len(found["corners"]) == 8
    assert found["corners"].min(axis=0) == pytest.approx([0, 6, 2])
    assert np.sort(found["lines"][:, 1]) == pytest.approx([6, 9])
    assert found["lines"][:, [0, 2]] == pytest.approx(np.array([[0.2, 2.2], [0.2, 2.2]]))
    missing = client.get(address.replace(refs[0]["global_id"], "gone"))
    assert missing.status_code == 422
    assert "gone" in missing.json()["detail"]


def test_a_point_that_was_clicked_settles_on_its_face(client, house, refs):
    body = {"of": refs[0], "point_m": [0.2, 7, 2.4004]}
    answer = client.post(f"/api/projects/{house}/measures/point", json=body)
    assert answer.json()["point_m"] == pytest.approx([0.2, 7, 2.4])


def test_measures_are_kept_with_a_view_and_measured_anew(client, house, refs):
    kept = {"id": "m", "name": "gap", "what": {"kind": "between", "a": refs[0], "b": refs[2], "how": "centre_lines"}}
    view = {**view_of(), "measures": [kept]}
    body = {"name": "Gap", "picture_png": png(), "view": view}
    made = client.post(f"/api/projects/{house}/viewpoints", json=body)
    assert made.status_code in (200, 201), made.text
    (there,) = client.get(f"/api/projects/{house}/viewpoints").json()
    assert there["view"]["measures"] == [kept]
    (found,) = measured(client, house, there["view"]["measures"][0]["what"])
    assert figures(found)["distance"] == pytest.approx(2.0)


@pytest.mark.parametrize(
    "what",
    [
        {"kind": "points", "points_m": [[0, 0, 0]]},
        {"kind": "between", "a": {"model": "m", "global_id": "g"}},
        {"kind": "volume", "of": []},
    ],
)
def test_a_measure_that_says_too_little_is_refused(client, house, what):
    answer = client.post(f"/api/projects/{house}/measures", json={"measures": [{"id": "a", "what": what}]})
    assert answer.status_code == 422
