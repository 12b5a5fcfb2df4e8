"""Whatever is killed at whatever moment of an import, everything is read in the end, once, and nobody lends a hand."""

from __future__ import annotations

import random
import time

import pytest

from stairpath.core.processes import begun_at
from tests.samples import Sample
from tests.soak.length import SEED, length
from tests.soak.running import Running, kill, until

KILLS = length(6, 30)
FILES = length(4, 8)
TARGETS = ("worker", "child", "server", "backend", "postmaster", "start command")


def block(number: int, walls: int) -> bytes:
    """A storey of walls; how many tells the files apart."""
    sample = Sample()
    storey = sample.storey("Level 00", 0)
    sample.box(storey, (-1, -1, -0.3), (40, 30, 0.3), "IfcSlab", Name="Floor")
    for k in range(walls):
        sample.box(storey, (0.9 * (k % 40), 2 * (k // 40), 0), (0.2, 1.5, 3), Name=f"Wall {k}")
    sample.room(storey, f"{number}.01", "Hall", (0, 0, 0), (30, 20, 3))
    return sample.content()


@pytest.fixture(scope="module")
def project(running):
    return running.ask("/api/projects", {"name": "Kept"})["id"]


def strike(running: Running, target: str, dice: random.Random) -> bool:
    """Kill one of a kind, if there is one just now."""
    there = running.pids()[target]
    if not there:
        return False
    kill(dice.choice(there))
    if target == "start command":
        running.process.wait(10)
        running.start()
    return True


def test_kills_at_any_moment_of_an_import_need_no_hand(running, project):
    dice = random.Random(SEED)
    walls = {f"T-{k:02d}": 60 + 20 * k for k in range(FILES)}
    struck: list[str] = []
    generation = 0
    while len(struck) < KILLS:
        generation += 1
        for name, count in walls.items():
            running.send(project, f"{name}.ifc", block(generation, count + generation))
            time.sleep(dice.uniform(0.0, 0.5))
            target = TARGETS[len(struck) % len(TARGETS)]
            if len(struck) < KILLS and strike(running, target, dice):
                struck.append(target)
                time.sleep(dice.uniform(0.0, 1.5))

    def cards():
        return running.ask(f"/api/projects/{project}/models")

    until(lambda: all(c["status"] in ("read", "failed") for c in cards()), 240, "every model is read")
    found = {c["name"]: c for c in cards()}
    assert {c["status"] for c in found.values()} == {"read"}, [c["message"] for c in found.values()]
    assert {name: c["components"] for name, c in found.items()} == {n: w + generation + 1 for n, w in walls.items()}
    until(lambda: all(c["aligned_by"] for c in cards()), 120, "every model is in its place")
    until(lambda: running.ask(f"/api/projects/{project}/walking")["current"], 240, "the walk map is current")
    federation = running.ask(f"/api/projects/{project}/federation")
    assert sorted(m["name"] for m in federation["models"]) == sorted(walls)
    assert federation["trouble"] == ""
    assert {t: struck.count(t) for t in TARGETS} == {t: KILLS // len(TARGETS) for t in TARGETS}


@pytest.mark.parametrize("target", ["server", "worker"])
def test_what_was_killed_is_back_within_five_seconds(running, target):
    until(lambda: bool(running.pids()[target]), 20, "it runs")
    before = running.pids()[target]
    kill(before[0])
    took = until(lambda: bool(set(running.pids()[target]) - set(before)), 10, f"the {target} is back")
    assert took < 5
    until(running.healthy, 20, "it answers")


def test_a_killed_postmaster_is_started_again_and_requests_say_so_meanwhile(running, project):
    kill(running.pids()["postmaster"][0])
    until(running.healthy, 40, "the database is back")
    assert running.ask(f"/api/projects/{project}/federation")["id"] == project


def test_a_second_start_does_not_start_a_second(running):
    """It says where the first one runs, and ends."""
    again = Running(running.folder, running.port)
    again.start()
    assert again.process.wait(30) == 0
    assert "already runs" in running.said.read_text()
    assert begun_at(running.start_pid)
    assert len(running.pids()["server"]) == 1
