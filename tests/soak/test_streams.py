"""Many open pages: one connection to the database serves all their streams, with requests beside them."""

from __future__ import annotations

import asyncio
import gzip
import json
import time
from pathlib import Path
from typing import Any

import httpx
import pytest

from stairpath.core import columns
from stairpath.core.reading.shares import cores
from tests.samples import simple
from tests.soak.length import LONG, length
from tests.soak.running import descendants, resident_mb, until

STREAMS = length(60, 200)
REQUESTS = 60
PEOPLE = length(8, 50)
FOR_S = length(6.0, 180.0)
# Medians of the version before, on a busy machine: seconds.
BEFORE = {"federation": 4.5, "models": 1.9, "viewpoints": 1.6, "chunk": 1.5, "frame": 1.1, "component": 0.6}


@pytest.fixture(scope="module")
def project(running, request):
    """A small house; where the soak is long, the whole demo building."""
    made = running.ask("/api/projects", {"name": "Followed"})["id"]
    files = {p.name: p.read_bytes() for p in request.getfixturevalue("demo_files")} if LONG else {}
    for name, content in (files or {"T-ARC.ifc": simple().content()}).items():
        running.send(made, name, content)
    until(lambda: running.ask(f"/api/projects/{made}/walking")["current"], 400, "the building is mapped")
    return made


def backends(running) -> int:
    return len(running.pids()["backend"])


class Heard:
    """What one stream was told."""

    def __init__(self) -> None:
        self.begun = asyncio.Event()
        self.changed: asyncio.Queue[dict[str, Any]] = asyncio.Queue()


async def listen(client: httpx.AsyncClient, address: str, heard: Heard) -> None:
    async with client.stream("GET", address, timeout=None) as answer:
        assert answer.status_code == 200
        kind = ""
        async for line in answer.aiter_lines():
            if line.startswith("event: "):
                kind = line[7:]
            elif line.startswith("data: ") and kind == "begun":
                heard.begun.set()
            elif line.startswith("data: "):
                heard.changed.put_nowait(json.loads(line[6:]))


async def follow(running, project: str) -> tuple[list[float], list[float], int]:
    limits = httpx.Limits(max_connections=STREAMS + 50)
    streams = [Heard() for _ in range(STREAMS)]
    async with httpx.AsyncClient(base_url=running.address, limits=limits, timeout=30) as client:
        tasks = [asyncio.create_task(listen(client, f"/api/projects/{project}/events", heard)) for heard in streams]
        await asyncio.wait_for(asyncio.gather(*(heard.begun.wait() for heard in streams)), 60)
        connections = backends(running)

        async def request() -> float:
            began = time.monotonic()
            answer = await client.get(f"/api/projects/{project}/models")
            assert answer.status_code == 200, answer.text
            return time.monotonic() - began

        answered = await asyncio.gather(*(request() for _ in range(REQUESTS)))
        began = time.monotonic()
        answer = await client.put(f"/api/projects/{project}/name", json={"name": "Followed by many"})
        assert answer.status_code == 200

        async def told(heard: Heard) -> float:
            said = await heard.changed.get()
            assert said["kind"] == "project"
            assert said["id"] == project
            assert said["version"] > 0
            return time.monotonic() - began

        reached = await asyncio.wait_for(asyncio.gather(*(told(heard) for heard in streams)), 30)
        for task in tasks:
            task.cancel()
        await asyncio.gather(*tasks, return_exceptions=True)
    return answered, reached, connections


def test_every_stream_is_told_and_requests_go_on(running, project):
    before = backends(running)
    answered, reached, connections = asyncio.run(follow(running, project))
    print(
        f"{STREAMS} streams: the last was told after {max(reached):.2f} s; {len(answered)} requests beside them, "
        f"the slowest {max(answered):.2f} s; {connections} connections to the database, {before} before"
    )
    # The server's pool alone grows; no stream has a connection of its own.
    assert connections <= before + 32
    assert connections < STREAMS


def test_a_stream_of_an_unknown_project_is_refused(running):
    answer = httpx.get(f"{running.address}/api/projects/{'0' * 32}/events")
    assert answer.status_code == 404
    assert answer.json()["detail"].startswith("There is no such project")


async def work(running, project: str) -> dict[str, list[float]]:
    """People who look at a project, each asking one thing after another."""
    took: dict[str, list[float]] = {}
    head = running.ask(f"/api/projects/{project}/federation")
    model = head["models"][0]
    names = httpx.get(f"{running.address}/api/projects/{project}/columns/{model['named']}").content
    global_id = columns.unpack(gzip.compress(names))["global_id"][0]
    asked = {
        "federation": ("GET", f"/api/projects/{project}/federation", None),
        "models": ("GET", f"/api/projects/{project}/models", None),
        "viewpoints": ("GET", f"/api/projects/{project}/viewpoints", None),
        "chunk": ("GET", f"/api/projects/{project}/blobs/{model['chunks'][0]['sha256']}", None),
        "frame": ("POST", f"/api/projects/{project}/frame", {"bearing_deg": 30, "tilt_deg": 20, "aspect": 1.6}),
        "component": ("GET", f"/api/models/{model['id']}/components/{global_id}", None),
    }
    until_s = time.monotonic() + FOR_S
    async with httpx.AsyncClient(
        base_url=running.address, limits=httpx.Limits(max_connections=PEOPLE + 5), timeout=60
    ) as client:

        async def person(number: int) -> None:
            await asyncio.sleep(0.02 * number)
            while time.monotonic() < until_s:
                for name, (method, path, body) in asked.items():
                    began = time.monotonic()
                    answer = await client.request(method, path, json=body)
                    assert answer.status_code == 200, f"{name}: {answer.status_code} {answer.text[:200]}"
                    took.setdefault(name, []).append(time.monotonic() - began)

        await asyncio.gather(*(person(k) for k in range(PEOPLE)))
    return took


def table(took: dict[str, list[float]]) -> str:
    lines = ["| asked for | times | median s | 95 % s | 99 % s | median before s |", "|---|---|---|---|---|---|"]
    for name, times in took.items():
        ordered = sorted(times)
        at = [ordered[min(len(ordered) - 1, int(share * len(ordered)))] for share in (0.5, 0.95, 0.99)]
        lines.append(f"| {name} | {len(times)} | {at[0]:.3f} | {at[1]:.3f} | {at[2]:.3f} | {BEFORE[name]} |")
    return "\n".join(lines)


def test_many_people_at_once(running, project):
    server = running.pids()["server"][0]
    before = resident_mb(server)
    took = asyncio.run(work(running, project))
    after = resident_mb(server)
    said = f"{PEOPLE} people for {FOR_S:.0f} s on {cores()} cores; server memory {before:.0f} MB before, {after:.0f} MB after"
    print(f"{said}\n{table(took)}")
    report = Path(running.folder) / "people.md"
    report.write_text(f"{said}\n\n{table(took)}\n")
    assert len(took) == 6
    assert after < before + 600
    assert len(descendants(server)) == 0
