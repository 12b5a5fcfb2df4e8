"""The jobs: each calls what is done, and is safe to run twice."""

from __future__ import annotations

from stairpath.jobs.queue import AGAIN, QUEUE, app
from stairpath.work import errands, federating, mapping, picturing, reading, standing
from stairpath.work.deed import FEDERATE, MAP, PICTURES, READ, RUN, STANDING


@app.task(name=READ, queue=QUEUE, retry=AGAIN)
def read_model(model_id: str) -> None:
    """Read a model's file and keep what was read."""
    reading.read(model_id)


@app.task(name=FEDERATE, queue=QUEUE, retry=AGAIN)
def federate_project(project_id: str) -> None:
    """Bring all models of a project together and draw its picture anew."""
    federating.bring_together(project_id)


@app.task(name=MAP, queue=QUEUE, retry=AGAIN)
def map_walks(project_id: str) -> None:
    """Make the walk map's tiles that changed since they were made."""
    mapping.map_project(project_id)


@app.task(name=RUN, queue=QUEUE, retry=AGAIN)
def run_errand(errand_id: str) -> None:
    """Run a check for interference, or draw a sheet."""
    errands.run(errand_id)


@app.task(name=PICTURES, queue=QUEUE, retry=AGAIN)
def draw_pictures(project_id: str) -> None:
    """Draw the pictures of views that no browser drew."""
    picturing.draw_pictures(project_id)


@app.task(name=STANDING, queue=QUEUE, retry=AGAIN)
def make_standing_views(project_id: str) -> None:
    """Make the standing views of a project."""
    standing.make_standing(project_id)
