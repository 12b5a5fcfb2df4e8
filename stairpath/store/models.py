"""The rows of models."""

from __future__ import annotations

from collections.abc import Collection

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from stairpath.store.tables import Chunk, Model


def live_models(session: Session, project_id: str) -> list[Model]:
    """The project's models that were not removed, in order."""
    return list(
        session.scalars(
            select(Model).where(Model.project_id == project_id, Model.removed_at.is_(None)).order_by(Model.position)
        )
    )


def removed_models(session: Session, project_id: str) -> list[Model]:
    """The project's models that were taken out, the last first."""
    return list(
        session.scalars(
            select(Model)
            .where(Model.project_id == project_id, Model.removed_at.is_not(None))
            .order_by(Model.removed_at.desc())
        )
    )


def model_by_id(session: Session, model_id: str, hold: bool = False) -> Model | None:
    """A model; held until the transaction ends if wanted."""
    return session.get(Model, model_id, with_for_update=hold or None, populate_existing=hold)


def models_by_id(session: Session, ids: Collection[str]) -> dict[str, Model]:
    """Models by their ids."""
    return {m.id: m for m in session.scalars(select(Model).where(Model.id.in_(ids)))}


def live_model_named(session: Session, project_id: str, name: str) -> Model | None:
    """The project's model of a name that was not removed."""
    return session.scalar(
        select(Model).where(Model.project_id == project_id, Model.name == name, Model.removed_at.is_(None))
    )


def add_model(session: Session, project_id: str, name: str) -> Model:
    """A model at the end of the project's list; the project is held by the caller."""
    last = session.scalar(select(func.max(Model.position)).where(Model.project_id == project_id))
    model = Model(project_id=project_id, position=0 if last is None else last + 1, name=name)
    session.add(model)
    return model


def unfinished(session: Session) -> list[str]:
    """Models that wait to be read or are said to be read just now."""
    return list(
        session.scalars(select(Model.id).where(Model.status.in_(("waiting", "reading")), Model.removed_at.is_(None)))
    )


def chunks_of(session: Session, model_ids: Collection[str]) -> dict[str, list[Chunk]]:
    """The drawn pieces of models, in order, by model."""
    found: dict[str, list[Chunk]] = {key: [] for key in model_ids}
    wanted = select(Chunk).where(Chunk.model_id.in_(model_ids)).order_by(Chunk.model_id, Chunk.number)
    for chunk in session.scalars(wanted):
        found[chunk.model_id].append(chunk)
    return found
