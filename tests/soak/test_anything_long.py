"""Requests made up from the API's own document, for ten minutes; the whole run tries each for a moment (tests/api)."""

from __future__ import annotations

import time

import pytest
from fastapi.testclient import TestClient
from hypothesis import HealthCheck
from hypothesis import settings as hypothesis_settings

from tests.anything import HOST, operations_of, try_operation
from tests.soak.length import LONG

FOR_S = 600.0


@pytest.mark.skipif(not LONG, reason="tests/api tries each operation for a moment")
def test_answers_are_as_the_document_says_for_ten_minutes(database_url):
    from stairpath.api.server import create_app

    often = hypothesis_settings(
        max_examples=60, deadline=None, suppress_health_check=list(HealthCheck), database=None, derandomize=False
    )
    found: list[str] = []
    rounds = 0
    with TestClient(create_app(), base_url=f"http://{HOST}") as client:
        operations = operations_of(client.app)
        until_s = time.monotonic() + FOR_S
        while time.monotonic() < until_s:
            for operation in operations:
                found += try_operation(operation, often)
                if time.monotonic() > until_s:
                    break
            rounds += 1
    print(f"{rounds} rounds over {len(operations)} operations of 60 requests each: {len(found)} findings")
    assert found == []
