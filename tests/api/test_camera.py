"""Where the camera stands, asked through the API."""

import base64

import numpy as np
import pytest

from tests.samples import Sample

POSE = {
    "eye_m": [0, -10, 2],
    "target_m": [0, 0, 2],
    "up": [0, 0, 1],
    "projection": "perspective",
    "angle_deg": 60,
    "height_m": 7.2,
}


@pytest.fixture
def house(client, project, send, work):
    """Two storeys with a box on each, and a room; its origin is taken off."""
    sample = Sample()
    ground, upper = sample.storey("Level 00", 0), sample.storey("Level 01", 4)
    sample.box(ground, (0, 0, 0), (8, 4, 3))
    sample.box(upper, (0, 0, 0), (2, 2, 2))
    sample.room(ground, "0.01", "Hall", (1, 1, 0), (2, 2, 3))
    send(project, "T-ARC.ifc", sample)
    work()
    return project


@pytest.fixture
def framed(client, house):
    origin = np.array(client.get(f"/api/projects/{house}/federation").json()["origin_m"])

    def ask(**wish):
        body = {"bearing_deg": 0, "tilt_deg": 90, "aspect": 1, "projection": "parallel", "margin": 0, **wish}
        answer = client.post(f"/api/projects/{house}/frame", json=body)
        assert answer.status_code == 200, answer.text
        pose = answer.json()
        return (np.array(pose["eye_m"]) + origin)[:2].round(6).tolist(), round(pose["height_m"], 6)

    return ask


def test_a_storey_a_room_and_everything_are_fitted(framed):
    assert framed() == ([4, 2], 8)
    assert framed(level=0) == ([4, 2], 8)
    assert framed(level=1) == ([1, 1], 2)
    assert framed(room=0) == ([2, 2], 2)


def test_a_room_is_looked_at_from_within_or_from_above_without_its_lid(client, house):
    origin = np.array(client.get(f"/api/projects/{house}/federation").json()["origin_m"])
    lid = {"id": "c", "shape": {"kind": "plane", "point_m": [0, 0, 2.2], "normal": [0, 0, 1]}, "name": "lid"}

    def seen(**wish):
        body = {"bearing_deg": 20, "tilt_deg": 50, "aspect": 1.6, "room": 0, "angle_deg": 20, **wish}
        pose = client.post(f"/api/projects/{house}/frame", json=body).json()
        return np.array(pose["eye_m"]) + origin, pose

    eye, pose = seen()
    assert 1 < eye[0] < 3
    assert 1 < eye[1] < 3
    assert (round(eye[2], 6), pose["projection"], pose["angle_deg"] >= 60) == (1.6, "perspective", True)
    # Looking down into it where its lid is off, one stays outside and looks as before.
    eye, pose = seen(cuts=[lid])
    assert eye[2] > 3
    assert pose["angle_deg"] == 20
    assert seen(cuts=[{**lid, "off": True}])[1] == seen()[1]
    assert seen(cuts=[lid], tilt_deg=0)[0][2] < 3
    # A plan is opened over the doors, a side behind the wall; what is neither is looked at from within.
    _, pose = seen(projection="parallel", tilt_deg=90)
    assert (pose["projection"], pose["eye_m"][2] + origin[2] - pose["through_m"]) == ("parallel", pytest.approx(2.2))
    assert seen(projection="parallel", tilt_deg=0)[1]["projection"] == "parallel"
    assert seen(projection="parallel", tilt_deg=30)[1]["projection"] == "perspective"


def test_what_is_visible_is_fitted_by_its_numbers(framed):
    assert framed(among=base64.b64encode(bytes([0b10])).decode()) == ([1, 1], 2)
    assert framed(among=base64.b64encode(bytes([0b11])).decode()) == ([4, 2], 8)


@pytest.mark.parametrize(
    ("wish", "status", "words"),
    [
        ({"room": 7}, 404, "no such room"),
        ({"level": 7}, 409, "nothing to fit"),
        ({"among": base64.b64encode(bytes([0])).decode()}, 409, "nothing to fit"),
        ({"among": base64.b64encode(bytes(9)).decode()}, 409, "has just changed"),
        ({"among": "???"}, 422, "not base64"),
    ],
)
def test_what_cannot_be_fitted_says_why(client, house, wish, status, words):
    answer = client.post(f"/api/projects/{house}/frame", json={"bearing_deg": 0, "tilt_deg": 0, "aspect": 1, **wish})
    assert answer.status_code == status
    assert words in answer.json()["detail"]


_TOWARDS = {
    "front": (0, 1, 0), "back": (0, -1, 0), "left": (1, 0, 0), "right": (-1, 0, 0), "above": (0, 0, -1), "below": (0, 0, 1)
}  # fmt: skip
"""Which way one looks who looks from a side, where the front is looked at along +Y."""


def test_each_of_26_directions_looks_from_the_sides_that_it_names(client, house):
    found = client.get("/api/camera/directions").json()
    assert len({each["name"] for each in found}) == 26
    for each in found:
        sides = [word for word in each["name"].replace(",", "").split() if word != "from"]
        wanted = np.sum([_TOWARDS[side] for side in sides], axis=0)
        wish = {"bearing_deg": each["bearing_deg"], "tilt_deg": each["tilt_deg"], "aspect": 1.5}
        pose = client.post(f"/api/projects/{house}/frame", json=wish).json()
        look = np.subtract(pose["target_m"], pose["eye_m"])
        assert look / np.linalg.norm(look) == pytest.approx(wanted / np.linalg.norm(wanted), abs=1e-6), each["name"]


def test_a_fit_keeps_clear_of_what_lies_over_the_view_and_opens_where_it_is_asked(client, house):
    wish = {"bearing_deg": 0, "tilt_deg": 90, "aspect": 2, "projection": "parallel", "margin": 0}

    def ask(**more):
        return client.post(f"/api/projects/{house}/frame", json={**wish, **more})

    plain = ask().json()
    clear = ask(covered=[{"left": 0.5}, {"top": 0.2}]).json()
    assert clear["height_m"] == pytest.approx(plain["height_m"] / 0.8)
    assert clear["eye_m"][1] > plain["eye_m"][1]
    opened = ask(open_at_m=[0, 0, 1.2]).json()
    assert opened["eye_m"][2] - opened["through_m"] == pytest.approx(1.2)
    assert "make the key plan smaller" in ask(covered=[{"left": 0.6, "right": 0.5}]).json()["detail"]


def test_square_onto_a_face_and_a_grid_line(client):
    assert client.post("/api/camera/face", json={"normal": [-1, 0, 0]}).json() == {"bearing_deg": 90, "tilt_deg": 0}
    floor = client.post("/api/camera/face", json={"normal": [0, 0, 1], "bearing_deg": 33}).json()
    assert floor == {"bearing_deg": 33, "tilt_deg": 90}
    line = {"ends_m": [[0, 0], [0, 5]], "bearing_deg": 200}
    assert client.post("/api/camera/axis", json=line).json() == {"bearing_deg": 270, "tilt_deg": 0}
    for address, body in (("face", {"normal": [0, 0, 0]}), ("axis", {"ends_m": [[1, 1], [1, 1]]})):
        refused = client.post(f"/api/camera/{address}", json=body)
        assert refused.status_code == 422
        assert refused.json()["detail"].endswith("Select another one.")


def test_a_lens_is_typed(client):
    def lens(text, **more):
        return client.post("/api/camera/lens", json={"pose": POSE, "aspect": 1.6, "text": text, **more})

    assert lens("18 mm").json()["angle_deg"] == pytest.approx(90)
    kept = lens("120", keep="subject").json()
    assert kept["eye_m"] == pytest.approx([0, -10 / 3, 2])
    assert lens("wide").json()["detail"] == "wide is not a lens; type an angle such as 60 or a length such as 35 mm."


def test_projection_level_and_scale(client):
    flat = client.post("/api/camera/projection", json={"pose": POSE, "aspect": 1.6, "to": "parallel"}).json()
    assert flat["height_m"] == pytest.approx(2 * 10 * np.tan(np.radians(30)) / 1.6)
    back = client.post("/api/camera/projection", json={"pose": flat, "aspect": 1.6, "to": "perspective"}).json()
    assert back["eye_m"] == pytest.approx(POSE["eye_m"])
    down = {**POSE, "target_m": [0, 0, -5]}
    level = client.post("/api/camera/level", json={"pose": down, "aspect": 1.6}).json()
    assert level["target_m"][2] == pytest.approx(2)
    wish = {"pose": POSE, "aspect": 1.6, "scale": 50, "height_px": 690, "pixel_mm": 0.25}
    assert client.post("/api/camera/scale", json=wish).json()["height_m"] == pytest.approx(8.625)
    nowhere = {**POSE, "target_m": POSE["eye_m"]}
    refused = client.post("/api/camera/level", json={"pose": nowhere, "aspect": 1.6})
    assert (refused.status_code, refused.json()["detail"]) == (422, "The view looks nowhere; fit something first.")


def test_what_meets_is_looked_at_from_where_both_are_seen(client, project, send, work):
    sample = Sample()
    storey = sample.storey("Level 00", 0)
    beam = sample.box(storey, (500, 700, 2.6), (6, 0.3, 0.6), Name="Beam")
    duct = sample.box(storey, (502.8, 697, 2.8), (0.4, 6, 0.2), Name="Duct")
    sample.box(storey, (490, 690, 3.2), (30, 30, 0.2), "IfcSlab", Name="Slab")
    send(project, "T-STR.ifc", sample)
    work()
    model = client.get(f"/api/projects/{project}/models").json()[0]["id"]
    refs = [{"model": model, "global_id": each.GlobalId} for each in (beam, duct)]
    answer = client.post(f"/api/projects/{project}/sighting", json={"components": refs, "at_m": [503, 700.15, 2.9]})
    assert answer.status_code == 200, answer.text
    found = answer.json()
    # Below the slab one does not look from above.
    assert found["tilt_deg"] < 15
    assert not found["boxed"]
    assert found["around"]["centre_m"] == [503, 700.15, 2.9]
    gone = client.post(
        f"/api/projects/{project}/sighting",
        json={"components": [{"model": model, "global_id": "0" * 22}], "at_m": [0, 0, 0]},
    )
    assert gone.status_code == 409
    assert gone.json()["detail"] == "Not all of its components stand in the building. Run the check again."
