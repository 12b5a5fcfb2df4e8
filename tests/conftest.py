"""What all tests share: the demo's files and their readings, made once a run."""

from __future__ import annotations

import os

import pytest
from hypothesis import HealthCheck, settings

from stairpath.core.federation.federate import Federation, federate
from stairpath.core.federation.outline import outline
from stairpath.core.reading.model import ModelReading
from stairpath.core.reading.sandboxed import read_many
from stairpath.demo import write_models
from tests.database import database

# The whole run is the same each time; the long soak looks further.
settings.register_profile(
    "ours", deadline=None, suppress_health_check=[HealthCheck.too_slow], derandomize=os.environ.get("SOAK") != "long"
)
settings.load_profile("ours")


@pytest.hookimpl(tryfirst=True)
def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Tests of the whole demo run in one process, so that it is read once."""
    for item in items:
        if {"demo", "demo_readings"} & set(getattr(item, "fixturenames", ())):
            item.add_marker(pytest.mark.xdist_group("demo"))


def pytest_make_parametrize_id(val: object, argname: str) -> str | None:
    """What is long is no name for a test: files that are made as tests are collected differ from process to process."""
    return argname if isinstance(val, str | bytes) and len(val) > 60 else None


@pytest.fixture(scope="session")
def demo_files(tmp_path_factory):
    return write_models(tmp_path_factory.mktemp("demo"))


@pytest.fixture(scope="session")
def demo_readings(demo_files) -> list[ModelReading]:
    readings = read_many([(path.name, path.read_bytes()) for path in demo_files])
    found = [reading for reading in readings if isinstance(reading, ModelReading)]
    assert len(found) == len(demo_files), readings
    return found


@pytest.fixture(scope="session")
def demo(demo_readings) -> Federation:
    return federate([outline(reading) for reading in demo_readings])


@pytest.fixture(scope="session")
def database_url():
    """One database for everything that needs one."""
    with database() as url:
        yield url
