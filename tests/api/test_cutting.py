"""Faces of cuts from the server: of what is shown, about the federation's origin; cuts kept with a view."""

from __future__ import annotations

import base64

import numpy as np
import pytest

from tests.api.test_seeing import AIR, WALLS, ducts
from tests.api.test_views import rule, view_of
from tests.samples import simple


@pytest.fixture
def air():
    return ducts()


@pytest.fixture
def ids(air):
    return [duct.GlobalId for duct in air.ifc.by_type("IfcDuctSegment")]


@pytest.fixture
def house(client, project, send, work, air):
    send(project, "QH-ARC.ifc", simple())
    send(project, "QH-AIR.ifc", air)
    work()
    return project


def level(height, **more):
    return {"id": "a", "shape": {"kind": "plane", "point_m": [0, 0, height], "normal": [0, 0, 1]}, **more}


def faces(client, project, *cuts, **wish):
    answer = client.post(f"/api/projects/{project}/cuts/faces", json={"cuts": list(cuts), **wish})
    assert answer.status_code == 200, answer.text
    found = answer.json()
    for face in found["faces"]:
        for key, kind, per in (("triangles", "<f4", 9), ("lines", "<f4", 6), ("of", "<i4", 1), ("line_of", "<i4", 1)):
            face[key] = np.frombuffer(base64.b64decode(face[key]), kind).reshape(-1, per)
    return found


def test_a_face_has_triangles_lines_and_the_components_that_they_are_of(client, house):
    found = faces(client, house, level(1.2))
    assert found["version"] == client.get(f"/api/projects/{house}/federation").json()["version"]
    (face,) = found["faces"]
    assert face["cut"] == "a"
    assert face["area_m2"] == pytest.approx(4 * 0.2)
    assert face["components"] == 1
    assert set(face["of"].ravel()) == {0}
    origin = client.get(f"/api/projects/{house}/federation").json()["origin_m"]
    corners = face["triangles"].reshape(-1, 3) + origin
    assert corners.min(axis=0) == pytest.approx([1, 2, 1.2])
    assert corners.max(axis=0) == pytest.approx([5, 2.2, 1.2])
    assert face["open"] == []


def test_what_is_hidden_faded_or_to_stay_whole_is_not_cut(client, house, ids):
    everything = faces(client, house, level(2.2))["faces"][0]
    assert set(everything["of"].ravel()) == {0, 1, 2, 3}
    assert set(faces(client, house, level(2.2), rules=[rule(AIR)])["faces"][0]["of"].ravel()) == {0}
    assert set(faces(client, house, level(2.2), rules=[rule(WALLS, "fade")])["faces"][0]["of"].ravel()) == {1, 2, 3}
    air = next(m["id"] for m in client.get(f"/api/projects/{house}/models").json() if m["name"] == "QH-AIR")
    whole = {"of": {air: [ids[1], "nobody_______________n"]}}
    assert len(set(faces(client, house, level(2.2), whole=whole)["faces"][0]["of"].ravel())) == 3


def test_several_cuts_take_from_one_another_and_one_that_is_off_takes_nothing(client, house):
    upright = {"id": "b", "shape": {"kind": "plane", "point_m": [3, 0, 0], "normal": [1, 0, 0]}}
    both = faces(client, house, level(1.2), upright)["faces"]
    assert [f["cut"] for f in both] == ["a", "b"]
    assert both[0]["area_m2"] == pytest.approx(2 * 0.2)
    assert faces(client, house, level(1.2, off=True))["faces"] == []
    box = {"id": "c", "shape": {"kind": "box", "centre_m": [3, 2.1, 1], "size_m": [1, 1, 1], "bearing_deg": 0}}
    sides = faces(client, house, box)["faces"]
    assert len(sides) == 6
    assert sum(f["area_m2"] for f in sides) == pytest.approx(2 * 0.2 * 1 + 2 * 0.2 * 1)


@pytest.mark.parametrize(
    ("shape", "status"),
    [
        ({"kind": "plane", "point_m": [0, 0, 0], "normal": [0, 0, 0]}, 422),
        ({"kind": "band", "point_m": [0, 0, 0], "normal": [0, 0, 1], "thick_m": 0}, 422),
        ({"kind": "cone"}, 422),
    ],
)
def test_a_cut_that_cannot_be_is_refused_in_a_sentence(client, house, shape, status):
    answer = client.post(f"/api/projects/{house}/cuts/faces", json={"cuts": [{"id": "a", "shape": shape}]})
    assert answer.status_code == status
    assert isinstance(answer.json()["detail"], (str, list))


def test_cuts_are_kept_with_a_view(client, house):
    view = {**view_of(), "cuts": [level(1.2, name="Above the benches")]}
    made = client.post(f"/api/projects/{house}/links", json=view)
    assert made.status_code == 201, made.text
    kept = client.get(f"/api/projects/{house}/links/{made.json()['id']}").json()
    (cut,) = kept["cuts"]
    assert cut["name"] == "Above the benches"
    assert cut["shape"]["point_m"] == [0, 0, 1.2]
    assert kept["whole"] == {"kind": "these", "of": {}}


def test_a_box_around_components_a_level_or_everything(client, house, ids):
    air = next(m["id"] for m in client.get(f"/api/projects/{house}/models").json() if m["name"] == "QH-AIR")

    def box(**wish):
        answer = client.post(f"/api/projects/{house}/cuts/box", json=wish)
        assert answer.status_code == 200, answer.text
        return answer.json()

    one = box(components=[{"model": air, "global_id": ids[1]}], margin_m=0.25)
    assert one["size_m"] == pytest.approx([0.9, 3.5, 0.9])
    assert one["centre_m"] == pytest.approx([1.2, 7.5, 2.2])
    assert one["bearing_deg"] == 0
    everything = box(margin_m=0)
    assert everything["size_m"] == pytest.approx([5, 7, 3])
    assert box(level=0, margin_m=0) == everything
    nobody = client.post(f"/api/projects/{house}/cuts/box", json={"components": []})
    assert nobody.status_code == 409
    assert "nothing to put a box around" in nobody.json()["detail"]


def test_what_is_cut_away_is_not_counted_by_a_fit(client, house):
    look = {"bearing_deg": 0, "tilt_deg": 0, "aspect": 1.6, "projection": "parallel", "margin": 0}

    def height(**more):
        answer = client.post(f"/api/projects/{house}/frame", json={**look, **more})
        assert answer.status_code == 200, answer.text
        return answer.json()["height_m"]

    shown = {"components": None, "among": base64.b64encode(b"\x0f").decode()}
    assert height(**shown) == pytest.approx(max(3, 5 / 1.6), rel=1e-3)
    narrow = {"id": "b", "shape": {"kind": "plane", "point_m": [1.5, 0, 0], "normal": [1, 0, 0]}}
    assert height(**shown, cuts=[narrow, level(2)]) == pytest.approx(2, rel=1e-3)
    nothing = client.post(f"/api/projects/{house}/frame", json={**look, **shown, "cuts": [level(-5)]})
    assert nothing.status_code == 409
    assert "nothing to fit" in nothing.json()["detail"]
