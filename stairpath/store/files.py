"""Taking a model file into a project."""

from __future__ import annotations

from datetime import UTC, datetime
from pathlib import PurePath

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from stairpath.store import blobs
from stairpath.store.federations import live_models
from stairpath.store.tables import Model, Project


def add_file(session: Session, project: Project, file_name: str, content: bytes, author: str) -> Model:
    """A new model that waits to be read, or a newer file for the model of the same name."""
    name = PurePath(file_name).stem
    model = next((m for m in live_models(session, project.id) if m.name == name), None)
    sha = blobs.keep(session, content, "application/x-step")
    if model is None:
        last = session.scalar(select(func.max(Model.position)).where(Model.project_id == project.id))
        model = Model(project_id=project.id, position=0 if last is None else last + 1, name=name)
        session.add(model)
    model.file_name, model.file_sha, model.file_size = file_name, sha, len(content)
    model.added_by, model.added_at = author, datetime.now(UTC)
    model.status, model.share, model.message, model.cancel = "waiting", 0.0, "", False
    session.flush()
    return model
