"""Whatever is sent, the server answers as its document says, with a sentence and never with a fault of its own."""

from __future__ import annotations

import json

import pytest
from hypothesis import HealthCheck
from hypothesis import settings as hypothesis_settings

from tests.anything import operations_of, try_operation
from tests.soak.length import length

# `make soak` asks more of each.
_EXAMPLES = length(4, 12)


@pytest.fixture
def app(database_url):
    """An application of their own: each of these requests starts and ends it."""
    from stairpath.api.server import create_app

    return create_app()


def test_every_operation_of_the_document_is_tried(app):
    assert len(operations_of(app)) > 35


@pytest.mark.parametrize("part", range(4))
def test_answers_are_as_the_document_says(app, part):
    """Requests made up from the API's own document, with every check that schemathesis has."""
    often = hypothesis_settings(
        max_examples=_EXAMPLES, deadline=None, suppress_health_check=list(HealthCheck), database=None
    )
    found = []
    for operation in operations_of(app)[part::4]:
        found += try_operation(operation, often)
    assert found == []


@pytest.mark.parametrize(
    ("method", "address", "body"),
    [
        ("post", "/api/projects", {"name": "NUL \x00 inside"}),
        ("get", "/api/projects/%00/federation", None),
        ("put", "/api/viewpoints/%00/name", {"name": "x"}),
    ],
)
def test_a_nul_is_refused_in_a_sentence(client, method, address, body):
    answer = client.request(method, address, json=body)
    assert answer.status_code == 422
    assert "cannot be stored" in answer.json()["detail"]


@pytest.mark.parametrize(("text", "at"), [("nojson", 1), ('{"name":', 9)])
def test_what_is_no_json_is_refused_where_it_goes_wrong(client, text, at):
    answer = client.post("/api/projects", content=text, headers={"Content-Type": "application/json"})
    wrong = f"What was sent is no JSON; it goes wrong at character {at}. Correct it and try again."
    assert (answer.status_code, answer.json()["detail"]) == (422, wrong)


POSE = {
    "eye_m": [0, -9, 2],
    "target_m": [0, 0, 2],
    "up": [0, 0, 1],
    "projection": "parallel",
    "angle_deg": 60,
    "height_m": 7,
}


@pytest.mark.parametrize("number", ["NaN", "Infinity", "-Infinity", "1e999"])
@pytest.mark.parametrize(
    ("address", "body"),
    [
        ("projects/none/frame", {"bearing_deg": "X", "tilt_deg": 0, "aspect": 1}),
        ("camera/lens", {"pose": {**POSE, "eye_m": ["X", 0, 0]}, "aspect": 1, "text": "60"}),
        ("camera/scale", {"pose": POSE, "aspect": 1, "scale": "X", "height_px": 800, "pixel_mm": 0.2}),
        ("camera/face", {"normal": [0, "X", 0]}),
        ("projects/none/walking/landing", {"body": "standing", "kind": "floor", "at_m": ["X", 0, 0]}),
        ("projects/none/routes/find", {"start": {"point_m": ["X", 0, 0]}, "end": {"room": 0}}),
        ("projects/none/routes/find", {"start": {"room": 0}, "end": {"room": 0}, "width_limit_m": "X"}),
    ],
)
def test_numbers_that_are_none_are_refused_in_a_sentence(client, address, body, number):
    text = json.dumps(body).replace('"X"', number)
    answer = client.post(f"/api/{address}", content=text, headers={"Content-Type": "application/json"})
    assert answer.status_code == 422
    assert answer.json()["detail"].endswith(".")
