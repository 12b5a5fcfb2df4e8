"""Framing and viewpoints through the API."""

import base64
import io

import pytest
from PIL import Image

from tests.asking import by
from tests.building import resolved
from tests.samples import simple

EYE = {
    "eye_m": [1.25, -20.5, 3.0625],
    "target_m": [1, 2, 3],
    "up": [0, 0, 1],
    "projection": "perspective",
    "angle_deg": 42.5,
    "height_m": 12.0,
}
STR_ON_00 = {
    "kind": "both",
    "of": [{"kind": "of", "what": "level", "value": "Level 00"}, {"kind": "of", "what": "discipline", "value": "STR"}],
}


def rule(select, effect="hide", **more):
    return {
        "select": select,
        "effect": effect,
        "colour": None,
        "by": "Ida Fenn",
        "at": "",
        "why": "",
        "off": False,
        **more,
    }


def view_of(*rules, picked=None):
    """A view as it is sent and given back."""
    return {
        "version": 2, "eye": EYE, "limits": {"through_m": 1.5, "depth_m": None}, "rules": list(rules),
        "cuts": [], "measures": [], "style": "edges", "whole": {"kind": "these", "of": {}}, "alternatives": {},
        "picked": {"kind": "these", "of": picked or {}}, "markups": [], "frame": None, "pictures": [],
    }  # fmt: skip


def png() -> str:
    out = io.BytesIO()
    Image.new("RGB", (32, 20), "#e08a1e").save(out, "PNG")
    return base64.b64encode(out.getvalue()).decode()


@pytest.fixture
def house(client, project, send, work):
    send(project, "QH-ARC.ifc", simple())
    work()
    return project


def keep(client, project, who="Ida Fenn", **changes):
    view = view_of(rule(STR_ON_00, "fade"))
    body = {"name": "North side", "picture_png": png(), "view": view, **changes}
    return client.post(f"/api/projects/{project}/viewpoints", json=body, headers=by(who))


def test_fit_comes_from_the_core(client, house):
    wish = {"bearing_deg": 0, "tilt_deg": 0, "aspect": 2.0, "angle_deg": 90, "margin": 0}
    pose = client.post(f"/api/projects/{house}/frame", json=wish).json()
    # A wall 4 m wide and 3 m high at y = 2: height decides, 1.5 / (tan 45 / 2) = 3 m in front of it.
    origin = client.get(f"/api/projects/{house}/federation").json()["origin_m"]
    assert [e + o for e, o in zip(pose["eye_m"], origin, strict=True)] == pytest.approx([3, -1, 1.5], abs=1e-5)


def test_a_room_is_fitted_from_within(client, project, send, work):
    sample = simple()
    sample.room(sample.ifc.by_type("IfcBuildingStorey")[0], "0.01", "Hall", (1, 3, 0), (8, 5, 3))
    send(project, "QH-ARC.ifc", sample)
    work()
    origin = client.get(f"/api/projects/{project}/federation").json()["origin_m"]
    wish = {"bearing_deg": 90, "tilt_deg": 24, "aspect": 1.6, "angle_deg": 60, "room": 0}
    pose = client.post(f"/api/projects/{project}/frame", json=wish).json()
    eye, target = ([c + o for c, o in zip(pose[k], origin, strict=True)] for k in ("eye_m", "target_m"))
    # From the west end to the far wall.
    assert eye[0] == pytest.approx(1.3, abs=0.3)
    assert 3 < eye[1] < 8
    assert eye[2] == pytest.approx(1.6)
    assert 8.5 < target[0] < 9.1
    assert target[2] <= eye[2]
    assert client.post(f"/api/projects/{project}/frame", json={**wish, "room": 7}).status_code == 404


def test_fit_of_nothing_says_so(client, project):
    answer = client.post(f"/api/projects/{project}/frame", json={"bearing_deg": 0, "tilt_deg": 0, "aspect": 1})
    assert answer.status_code == 409
    assert "nothing to fit" in answer.json()["detail"]


def test_a_bad_wish_gets_one_sentence(client, project):
    answer = client.post(f"/api/projects/{project}/frame", json={"bearing_deg": 0, "tilt_deg": 200, "aspect": 1})
    assert answer.status_code == 422
    assert answer.json()["detail"].startswith("tilt_deg is not valid")


def test_a_viewpoint_comes_back_exactly(client, house):
    made = keep(client, house).json()
    (listed,) = client.get(f"/api/projects/{house}/viewpoints").json()
    assert listed == made == client.get(f"/api/viewpoints/{made['id']}").json()
    assert listed["view"] == view_of(rule(STR_ON_00, "fade"))
    assert listed["author"] == "Ida Fenn"
    assert client.get(f"/api/projects/{house}/blobs/{listed['picture']}").headers["content-type"] == "image/png"


def test_rename_delete_and_undo(client, house):
    made = keep(client, house).json()
    at = f"/api/viewpoints/{made['id']}"
    assert client.put(f"{at}/name", json={"name": " South side "}).json()["name"] == "South side"
    assert client.put(f"{at}/name", json={"name": "   "}).status_code == 422
    assert client.delete(at).status_code == 204
    assert client.get(f"/api/projects/{house}/viewpoints").json() == []
    gone = client.get(at)
    assert gone.status_code == 410
    assert "South side was deleted" in gone.json()["detail"]
    assert client.post(f"{at}/restore").json()["name"] == "South side"
    assert len(client.get(f"/api/projects/{house}/viewpoints").json()) == 1


def test_viewpoints_outlive_a_new_reading(client, house, work, building):
    model = building(house)["models"][0]
    these = {model["id"]: [model["global_ids"][0]]}
    view = view_of(rule({"kind": "these", "of": these}), picked=these)
    made = keep(client, house, view=view).json()
    client.post(f"/api/models/{model['id']}/retry")
    work()
    after = building(house)["models"][0]
    kept = client.get(f"/api/viewpoints/{made['id']}").json()["view"]
    assert kept["picked"]["of"] == {after["id"]: [after["global_ids"][0]]}
    seen = resolved(client, house, kept["rules"])
    assert (seen["hidden"], seen["rules"][0]["gone"]) == (1, 0)


@pytest.mark.parametrize("picture", ["%%%", base64.b64encode(b"not a picture").decode()])
def test_a_picture_that_is_none_is_refused(client, house, picture):
    answer = keep(client, house, picture_png=picture)
    assert answer.status_code == 422
    assert answer.json()["detail"].startswith("The viewpoint's picture is n")


@pytest.mark.parametrize(
    "address",
    [
        "/api/projects/none/federation",
        "/api/models/none/components/x",
        "/api/viewpoints/none",
        f"/api/projects/none/blobs/{'0' * 64}",
        "/api/nowhere",
    ],
)
def test_what_is_not_there_says_so(client, address):
    answer = client.get(address)
    assert answer.status_code == 404
    assert answer.json()["detail"]


def test_model_files_cannot_be_fetched_as_pictures(client, house):
    from sqlalchemy import select

    from stairpath.store.database import transaction
    from stairpath.store.tables import Model

    with transaction() as session:
        sha = session.scalar(select(Model.file_sha).where(Model.project_id == house))
    assert client.get(f"/api/projects/{house}/blobs/{sha}").status_code == 404


def test_home_is_set_for_everybody_and_forgotten(client, house):
    def home():
        return client.get(f"/api/projects/{house}/federation").json()["home"]

    assert home() is None
    view = view_of(rule({"kind": "all"}, "only"))
    body = {"view": view}
    assert client.put(f"/api/projects/{house}/home", json=body, headers=by("Ida Fenn")).status_code == 204
    assert home()["author"] == "Ida Fenn"
    assert home()["view"] == view
    assert client.delete(f"/api/projects/{house}/home").status_code == 204
    assert home() is None
    assert client.put("/api/projects/none/home", json=body).status_code == 404


def test_more_planes_than_are_drawn_at_once_are_refused_in_a_sentence(client, house):
    shape = {"kind": "box", "centre_m": [0, 0, 0], "size_m": [1, 1, 1]}
    boxes = [{"id": f"c{k}", "shape": shape} for k in range(5)]
    answer = keep(client, house, view={**view_of(), "cuts": boxes})
    assert (answer.status_code, answer.json()["detail"]) == (
        422,
        "The cuts have 30 planes and at most 24 cut at once. Switch one off or remove it.",
    )
    assert keep(client, house, view={**view_of(), "cuts": [*boxes[:4], {**boxes[4], "off": True}]}).status_code == 201
