"""Reading the demo, from files to rows and chunks stored."""

from __future__ import annotations

import io
import subprocess
import sys
import time
from pathlib import Path

from bench.measure import Measure, middle
from stairpath.core.reading.shares import cores
from stairpath.work.base import projects
from stairpath.work.base.unit_of_work import Who
from stairpath.work.models import models

_WALK = """
import sys
import ifcopenshell, ifcopenshell.geom
from stairpath.core.reading.shapes import kernel_settings
for path in sys.argv[2:]:
    ifc = ifcopenshell.open(path)
    iterator = ifcopenshell.geom.iterator(kernel_settings(), ifc, int(sys.argv[1]))
    if iterator.initialize():
        while True:
            iterator.get()
            if not iterator.next():
                break
"""


def walk_geometry(files: list[Path]) -> float:
    """Seconds that a process takes to walk the geometry of files, keeping nothing."""
    started = time.perf_counter()
    subprocess.run([sys.executable, "-c", _WALK, str(cores()), *map(str, files)], check=True)
    return time.perf_counter() - started


def _read(files: list[Path], name: str) -> tuple[float, str]:
    who = Who("Bench")
    project_id = projects.make(who, name).project.id
    # A comment of its own keeps every run's files apart, so that nothing was kept before.
    mark = f"\n/* {name} */\n".encode()
    content = [(path.name, io.BytesIO(path.read_bytes() + mark)) for path in files]
    started = time.perf_counter()
    models.keep_files(who, project_id, content)
    while True:
        states = [model.status for model in models.listed(project_id)]
        if all(state == "read" for state in states):
            return time.perf_counter() - started, project_id
        if "failed" in states:
            raise RuntimeError("a model of the demo could not be read")
        time.sleep(0.02)


def measure(files: list[Path], url: str) -> list[Measure]:
    """Three pairs after a warm-up; the worker runs as it does for users."""
    worker = subprocess.Popen([sys.executable, "-m", "stairpath.jobs.worker"])
    ours, reference, project = [], [], ""
    try:
        _read(files, "warm-up")
        walk_geometry(files)
        for run in range(3):
            time.sleep(3)  # federating of the last run, which is not timed, comes to its end
            reference.append(walk_geometry(files))
            seconds, project = _read(files, f"Quillhaven run {run}")
            ours.append(seconds)
        # The stage draws the last of them, so that it has to be put together.
        while any(model.placed is None for model in models.listed(project)):
            time.sleep(0.1)
    finally:
        worker.terminate()
        worker.wait(20)
    how = (
        f"median of three runs after a warm-up: from the moment the nine files are taken in until all their rows, "
        f"geometry and chunks are stored, against a process that opens the same files one after another and walks "
        f"ifcopenshell's geometry iterator ({cores()} threads, same settings) keeping nothing."
    )
    return [Measure("Reading the demo end to end", middle(ours), middle(reference), "s", 1.3, how)]
