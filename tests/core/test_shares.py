"""A large file's triangles, made by several processes, are those that one process makes."""

import os
import re
import signal
import time

import numpy as np
import pytest

from stairpath.core.problems import CannotReadError
from stairpath.core.reading import shares
from stairpath.core.reading.apart import read_apart
from stairpath.core.reading.model import Geometry, Shape
from stairpath.core.reading.read import read_model
from stairpath.core.reading.shares import deal, walk_in_shares
from tests.samples import Sample


def walls(count: int) -> Sample:
    sample = Sample()
    storey = sample.storey("Level 00", 0)
    for i in range(count):
        sample.box(storey, (3 * i, 0, 0), (1 + i, 0.2, 3), Name=f"Wall {i}")
    return sample


def test_shares_give_what_one_process_gives(monkeypatch):
    content = walls(9).content()
    alone = read_model("walls.ifc", content).geometry
    monkeypatch.setattr(shares, "WORTH_A_PROCESS", 3)
    monkeypatch.setattr(shares, "cores", lambda: 3)
    heard: list[float] = []
    shared = read_model("walls.ifc", content, lambda share, at: heard.append(share)).geometry
    assert shared.bounds(9) == pytest.approx(alone.bounds(9))
    assert shared.triangle_count == alone.triangle_count == 9 * 12
    assert list(shared.owner) == list(range(9))
    assert heard == sorted(heard)


def test_small_files_are_left_to_one_process():
    assert shares.processes_for(0) == 1
    assert shares.processes_for(2 * shares.WORTH_A_PROCESS - 1) == 1
    assert shares.processes_for(100 * shares.WORTH_A_PROCESS) == shares.cores()


def test_components_that_repeat_a_shape_stay_together():
    sample = Sample()
    storey = sample.storey("Level 00", 0)
    sample.repeated(storey, 8, Name="Same")
    for x in range(8):
        sample.box(storey, (3 * x, 5, 0), (1 + x, 1, 1), Name="Own")
    dealt = deal(sample.ifc.by_type("IfcWall"), 2)
    assert sorted(len(share) for share in dealt) == [8, 8]
    assert {frozenset(e.Name for e in share) for share in dealt} == {frozenset({"Same"}), frozenset({"Own"})}


def _one(entities, report) -> Geometry:
    """A walk that makes one triangle an entity, and dies at the entity that says so."""
    for i, entity in enumerate(entities):
        report(i / len(entities), entity.GlobalId)
        time.sleep(0.12)
        if entity.Name == "dies":
            os.kill(os.getpid(), signal.SIGKILL)
    triangle = Shape(np.zeros((3, 3), np.float32), np.array([[0, 1, 2]], np.int32), np.zeros(1, bool))
    owner = np.array([e.id() for e in entities], np.int32)
    places = np.tile(np.eye(4), (len(entities), 1, 1))
    return Geometry((triangle,), owner, np.zeros(len(entities), np.int32), places)


def test_a_helper_that_dies_names_the_file_and_the_component():
    sample = walls(4)
    entities = sample.ifc.by_type("IfcWall")
    last = deal(entities, 2)[1][-1]
    last.Name = "dies"
    with pytest.raises(
        CannotReadError, match=re.escape(f"walls.ifc crashed the geometry kernel, last at component {last.GlobalId};")
    ):
        walk_in_shares("walls.ifc", entities, _one, lambda share, at: None, 2)


def test_waiting_for_a_helper_goes_on_telling_how_far_it_is():
    sample = walls(3)
    entities = sample.ifc.by_type("IfcWall")
    heard: list[float] = []
    made = walk_in_shares("walls.ifc", entities, _one, lambda share, at: heard.append(share), 3)
    assert sorted(made.owner) == list(made.owner) == [e.id() for e in entities]
    assert heard[-1] == pytest.approx(1.0)


def _leave_a_helper(name, content, progress):
    """A reading that hangs with a helper of its own."""
    pid = os.fork()
    if pid == 0:
        time.sleep(600)
        os._exit(0)
    progress(0.5, str(pid))
    time.sleep(600)


def test_cancelling_ends_the_helpers_too():
    helpers: list[int] = []
    with pytest.raises(Exception, match=r"x\.ifc"):
        read_apart(
            "x.ifc", b"", None, lambda share, at: helpers.append(int(at)), lambda: bool(helpers), read=_leave_a_helper
        )
    (helper,) = helpers
    deadline = time.monotonic() + 10
    while time.monotonic() < deadline:
        try:
            with open(f"/proc/{helper}/stat") as stat:
                if stat.read().split(") ")[1][0] == "Z":
                    return
        except FileNotFoundError:
            return
        time.sleep(0.05)
    raise AssertionError("the helper goes on")
