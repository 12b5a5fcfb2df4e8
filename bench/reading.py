"""Reading the demo, from files to rows and chunks stored."""

from __future__ import annotations

import subprocess
import sys
import time
from pathlib import Path

from sqlalchemy import select

from bench.measure import Measure, middle
from stairpath.core.reading.shares import cores
from stairpath.jobs.tasks import defer_reading
from stairpath.store.database import transaction
from stairpath.store.files import add_file
from stairpath.store.tables import Model, Project

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
    with transaction() as session:
        project = Project(name=name, created_by="Bench")
        session.add(project)
        session.flush()
        # A comment of its own keeps every run's files apart, so that nothing was kept before.
        mark = f"\n/* {name} */\n".encode()
        ids = [add_file(session, project, path.name, path.read_bytes() + mark, "Bench").id for path in files]
        project_id = project.id
    started = time.perf_counter()
    for model_id in ids:
        defer_reading(model_id)
    while True:
        with transaction() as session:
            states = session.scalars(select(Model.status).where(Model.project_id == project_id)).all()
        if all(state == "read" for state in states):
            return time.perf_counter() - started, project_id
        if "failed" in states:
            raise RuntimeError("a model of the demo could not be read")
        time.sleep(0.02)


def measure(files: list[Path], url: str) -> list[Measure]:
    """Three pairs after a warm-up; the worker runs as it does for users."""
    worker = subprocess.Popen([sys.executable, "-m", "stairpath.jobs.worker"])
    ours, reference = [], []
    try:
        _read(files, "warm-up")
        walk_geometry(files)
        for run in range(3):
            time.sleep(3)  # federating of the last run, which is not timed, comes to its end
            reference.append(walk_geometry(files))
            ours.append(_read(files, f"Quillhaven run {run}")[0])
    finally:
        worker.terminate()
        worker.wait(20)
    how = (
        f"median of three runs after a warm-up: from the moment the nine files are put on the queue until all their rows, "
        f"geometry and chunks are stored, against a process that opens the same files one after another and walks "
        f"ifcopenshell's geometry iterator ({cores()} threads, same settings) keeping nothing."
    )
    return [Measure("Reading the demo end to end", middle(ours), middle(reference), "s", 1.3, how)]
