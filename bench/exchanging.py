"""Taking in a large file of topics, writing minutes, and how soon a move is seen by those who follow."""

from __future__ import annotations

import asyncio
import contextlib
import dataclasses
import io
import json
import os
import subprocess
import sys
import tempfile
import time
import uuid
from datetime import date
from pathlib import Path

import numpy as np
import websockets
from PIL import Image

from bench.measure import Measure
from stairpath.core.exchange.bcf import opened, writing
from stairpath.core.exchange.printed import Item, Minutes, pdf
from stairpath.core.review.meeting import Point
from stairpath.start.postgres import free_port
from stairpath.work.base import projects
from stairpath.work.base.unit_of_work import Who
from stairpath.work.exchange import importing
from stairpath.work.tasks import tasks
from tests.core.test_exchange import TOPIC, VIEW

TOPICS, SEATS, MOVES = 2000, 50, 200
_WITHIN_S, _MINUTES_S, _FOLLOW_MS = 60.0, 20.0, 300.0


def _picture(seed: int, size: tuple[int, int] = (720, 450)) -> bytes:
    """A picture that is as large as those of a building are, since it does not compress well."""
    coarse = np.random.default_rng(seed).integers(90, 250, (size[1] // 6, size[0] // 6, 3), dtype=np.uint8)
    out = io.BytesIO()
    Image.fromarray(coarse).resize(size, Image.Resampling.BICUBIC).save(out, "PNG")
    return out.getvalue()


def _file(path: Path) -> None:
    pictures = [_picture(seed) for seed in range(12)]
    with writing(path, "2.1", "Elsewhere") as into:
        for k in range(TOPICS):
            # A picture of its own each, so that none is kept already.
            view = dataclasses.replace(VIEW, guid=str(uuid.uuid4()), snapshot=pictures[k % 12] + k.to_bytes(4, "big"))
            into.put(dataclasses.replace(TOPIC, guid=str(uuid.uuid4()), title=f"Topic {k}", viewpoints=(view,)))


def taking_in() -> list[Measure]:
    """Topics with pictures, from a file that was sent until all are kept; the job itself, in this process."""
    who = Who("Bench")
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "large.bcf"
        _file(path)
        started = time.perf_counter()
        with opened(path) as held:
            count = sum(1 for _ in held.topics())
        reading = time.perf_counter() - started
        project = projects.make(who, "Topics").project.id
        started = time.perf_counter()
        with path.open("rb") as content:
            row = importing.take_file(who, project, path.name, content)
        tasks.run(row.id)
        seconds = time.perf_counter() - started
        (done,) = tasks.listed(project)
        if done.status != "done" or count != TOPICS:
            raise RuntimeError(f"the file was not taken in: {done.message}")
        size = path.stat().st_size / 1e6
    how = (
        f"{TOPICS:,} topics with a comment, a document and a view with a picture each, {size:.0f} MB, once: from the moment the "
        "file was sent until all are kept, the job in its child process. The reference is the limit."
    )
    return [
        Measure("Taking in 2,000 topics with pictures", seconds, _WITHIN_S, "s", 1.0, how),
        Measure(
            "The same against reading them alone", seconds, reading, "s", None, "the same file, read and forgotten."
        ),
    ]


def minutes() -> list[Measure]:
    """Minutes of 100 topics with pictures and two notes each, as PDF."""
    notes = (Point("It can be lowered by 40 mm."), Point("Lower it.", True, "Tam Kerr", date(2026, 12, 4)))
    items = tuple(Item(f"AIR {k:03d}", f"Topic {k}", "open", "Level 01", _picture(k), notes) for k in range(1, 101))
    held = Minutes("Quillhaven", "Meeting", date(2026, 11, 27), ("Mara Oake",), items)
    started = time.perf_counter()
    pdf(held)
    seconds = time.perf_counter() - started
    how = "100 topics with a picture of 720 x 450 and two notes each, A4, once, loading included. The reference is the limit."
    return [Measure("Minutes of 100 topics as PDF", seconds, _MINUTES_S, "s", 1.0, how)]


async def _follow(address: str) -> list[float]:
    """How long each move takes until each of the seats has heard it, in milliseconds."""
    heard: list[float] = []
    sent: dict[float, float] = {}
    async with contextlib.AsyncExitStack() as stack:
        presenter = await stack.enter_async_context(websockets.connect(f"{address}?name=Presenter"))
        seats = [
            await stack.enter_async_context(websockets.connect(f"{address}?name=Seat%20{k}")) for k in range(SEATS)
        ]

        async def listen(seat: websockets.ClientConnection) -> None:
            async for text in seat:
                said = json.loads(text)
                if said["kind"] == "looks":
                    at = said["eye"]["eye_m"][0]
                    heard.append((time.perf_counter() - sent[at]) * 1000)
                    if at == MOVES:
                        return

        listening = [asyncio.create_task(listen(seat)) for seat in seats]
        ignoring = asyncio.create_task(_drain(presenter))
        await presenter.send(json.dumps({"kind": "present", "on": True}))
        await asyncio.sleep(1.0)
        eye = {"target_m": [0, 9, 0], "up": [0, 0, 1], "projection": "perspective", "angle_deg": 60, "height_m": 3}
        for k in range(1, MOVES + 1):
            sent[float(k)] = time.perf_counter()
            await presenter.send(json.dumps({"kind": "looks", "eye": {**eye, "eye_m": [float(k), 0, 0]}}))
            await asyncio.sleep(0.05)
        await asyncio.gather(*listening)
        ignoring.cancel()
    return heard


async def _drain(socket: websockets.ClientConnection) -> None:
    async for _ in socket:
        pass


def following() -> list[Measure]:
    """A move by the presenter as it is heard by 50 who follow, over the server's own hub."""
    project = projects.make(Who("Bench"), "Followed").project.id
    port = free_port(8600)
    server = subprocess.Popen(
        [sys.executable, "-m", "stairpath.api.server"], env={**os.environ, "STAIRPATH_PORT": str(port)}
    )
    try:
        address = f"ws://127.0.0.1:{port}/api/projects/{project}/together"
        heard = asyncio.run(_once_up(address))
    finally:
        server.terminate()
        server.wait(20)
    late = float(np.percentile(heard, 95))
    how = (
        f"{MOVES} moves of the eye, 50 ms apart, to {SEATS} connections of one process on the same machine: from sending until "
        f"heard, {len(heard):,} times (median {np.median(heard):.1f} ms). The reference is the limit; drawing it comes on top."
    )
    return [Measure("A move heard by 50 who follow, 95th percentile", late, _FOLLOW_MS, "ms", 1.0, how)]


async def _once_up(address: str) -> list[float]:
    for _ in range(240):
        try:
            async with websockets.connect(f"{address}?name=First"):
                break
        except OSError:
            await asyncio.sleep(0.25)
    return await _follow(address)


def measure() -> list[Measure]:
    """All three."""
    return taking_in() + minutes() + following()
