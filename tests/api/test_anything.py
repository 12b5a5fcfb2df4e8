"""Whatever is sent, the server answers with a sentence and never with a fault of its own."""

import pytest
import schemathesis
from hypothesis import HealthCheck, given, settings
from schemathesis.core.result import Ok


def test_no_request_breaks_the_server(client):
    """Requests made up from the API's own document; the event stream, which has no end, left out."""
    described = schemathesis.openapi.from_asgi("/api/openapi.json", client.app).exclude(path_regex="events$")
    tried = 0
    for found in described.get_all_operations():
        assert isinstance(found, Ok)
        operation = found.ok()

        @given(case=operation.as_strategy())
        @settings(max_examples=8, deadline=None, suppress_health_check=list(HealthCheck), database=None)
        def check(case):
            answer = case.call()
            assert answer.status_code < 500, answer.text
            if answer.status_code >= 400:
                assert answer.json()["detail"]

        check()
        tried += 1
    assert tried > 15


@pytest.mark.parametrize(
    ("method", "address", "body"),
    [
        ("post", "/api/projects", {"name": "NUL \x00 inside", "author": "x"}),
        ("get", "/api/projects/%00/federation", None),
        ("put", "/api/viewpoints/%00/name", {"name": "x"}),
    ],
)
def test_a_nul_is_refused_in_a_sentence(client, method, address, body):
    answer = client.request(method, address, json=body)
    assert answer.status_code == 422
    assert "cannot be kept" in answer.json()["detail"]
