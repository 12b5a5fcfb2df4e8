"""The jobs: each calls what is done, and is safe to run twice."""

from __future__ import annotations

from stairpath.jobs.queue import AGAIN, QUEUE, app
from stairpath.work.base.unit_of_work import FEDERATE, MAP, NEW_PASSWORD, PICTURES, READ, RUN, STANDING
from stairpath.work.models import federating, reading
from stairpath.work.people import links
from stairpath.work.tasks import tasks
from stairpath.work.views import standing_views, thumbnails
from stairpath.work.walking import walk_map


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
    walk_map.map_project(project_id)


@app.task(name=RUN, queue=QUEUE, retry=AGAIN)
def run_task(task_id: str) -> None:
    """Run a check for interference, or draw a sheet."""
    tasks.run(task_id)


@app.task(name=PICTURES, queue=QUEUE, retry=AGAIN)
def draw_pictures(project_id: str) -> None:
    """Draw the pictures of views that no browser drew."""
    thumbnails.draw_pictures(project_id)


@app.task(name=STANDING, queue=QUEUE, retry=AGAIN)
def make_standing_views(project_id: str) -> None:
    """Make the standing views of a project."""
    standing_views.make_standing(project_id)


@app.task(name=NEW_PASSWORD, queue=QUEUE, retry=AGAIN)
def mail_new_password(key: str) -> None:
    """Mail a link to set a password to who signs in with a name, if anybody does."""
    links.mail_new_password(key)
