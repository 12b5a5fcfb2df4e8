"""A large file's triangles, made by several processes, are those that one process makes."""

import os
import re
import signal
import time

import numpy as np
import pytest

from stairpath.core.reading import shares
from stairpath.core.reading.model import Geometry, Shape
from stairpath.core.reading.read import read_model
from stairpath.core.reading.sandboxed import read_sandboxed
from stairpath.core.reading.shares import Walked, deal, walk_in_shares
from stairpath.core.sandbox import CancelledError
from tests.samples import Sample
from tests.soak.running import descendants


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
    entities = sample.ifc.by_type("IfcWall")
    dealt = deal(entities, 3)
    assert sorted(index for batch in dealt for index in batch) == list(range(16))
    assert sorted(len(batch) for batch in dealt) == [2, 3, 3, 8]
    assert {frozenset(entities[i].Name for i in batch) for batch in dealt} == {frozenset({"Same"}), frozenset({"Own"})}


def _one(entities, report) -> Walked:
    """A walk that makes one triangle an entity; what it does at an entity its name says."""
    for i, entity in enumerate(entities):
        report(i / len(entities), entity.GlobalId)
        time.sleep(0.02)
        if entity.Name == "dies":
            os.kill(os.getpid(), signal.SIGSEGV)
        if entity.Name == "is killed":
            os.kill(os.getpid(), signal.SIGKILL)
        if entity.Name == "hangs":
            time.sleep(60)
        if entity.Name == "raises":
            raise ValueError("no such shape")
        if entity.Name == "eats":
            raise MemoryError
    triangle = Shape.bare(np.zeros((3, 3)), np.array([[0, 1, 2]]))
    owner = np.array([e.id() for e in entities], np.int32)
    places = np.tile(np.eye(4), (len(entities), 1, 1))
    return Walked(Geometry((triangle,), owner, np.zeros(len(entities), np.int32), places))


@pytest.mark.parametrize(
    ("bad", "words"),
    [
        ("dies", r"it crashes the geometry kernel \(SIGSEGV\)"),
        ("is killed", "its process was killed"),
        ("hangs", "it was not done after 1 s"),
        ("raises", "ValueError: no such shape"),
        ("eats", "it needs more memory"),
    ],
)
@pytest.mark.parametrize("count", [1, 2])
def test_one_bad_entity_is_left_out_and_the_rest_is_made(bad, words, count, monkeypatch):
    monkeypatch.setattr(shares, "LEAST_SILENCE_S", 0.8)
    sample = walls(9)
    entities = sample.ifc.by_type("IfcWall")
    entities[4].Name = bad
    walked, left = walk_in_shares(entities, _one, lambda share, at: None, count, 0.8)
    assert [each.index for each in left] == [4]
    assert re.match(words, left[0].why)
    assert list(walked.geometry.owner) == [e.id() for i, e in enumerate(entities) if i != 4]


def test_entities_that_all_die_end_in_bounded_work(monkeypatch):
    monkeypatch.setattr(shares, "MOST_LEFT_OUT", 5)
    sample = walls(40)
    entities = sample.ifc.by_type("IfcWall")
    for entity in entities:
        entity.Name = "dies"
    walked, left = walk_in_shares(entities, _one, lambda share, at: None, 2)
    assert len(walked.geometry.owner) == 0
    assert sorted(each.index for each in left) == list(range(40))
    assert sum("SIGSEGV" in each.why for each in left) <= 7
    assert any("not tried any more" in each.why for each in left)


def test_waiting_for_a_helper_goes_on_telling_how_far_it_is(monkeypatch):
    monkeypatch.setattr(shares, "LEAST_BATCH", 1)
    monkeypatch.setattr(shares, "BATCHES", 1)
    sample = walls(12)
    entities = sample.ifc.by_type("IfcWall")
    heard: list[float] = []
    made, left = walk_in_shares(entities, _one, lambda share, at: heard.append(share), 3)
    assert sorted(made.geometry.owner) == list(made.geometry.owner) == [e.id() for e in entities]
    assert left == []
    assert heard == sorted(heard)
    assert heard[-1] == pytest.approx(1.0)


def test_no_helper_is_left_after_a_walk():
    before = set(descendants(os.getpid()))
    walk_in_shares(walls(3).ifc.by_type("IfcWall"), _one, lambda share, at: None, 2)
    assert set(descendants(os.getpid())) <= before


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
    with pytest.raises(CancelledError):
        read_sandboxed(
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
