"""The rows of components."""

from __future__ import annotations

from collections.abc import Collection, Iterable

from sqlalchemy import select, tuple_
from sqlalchemy.orm import Session

from stairpath.store.tables import Component, Model


def component(session: Session, model_id: str, global_id: str) -> Component | None:
    """A component by its model and GlobalId."""
    return session.scalar(select(Component).where(Component.model_id == model_id, Component.global_id == global_id))


def ordinals(session: Session, model_id: str, global_ids: Collection[str]) -> list[int]:
    """The places in their model of components by GlobalId; unknown ones are left out."""
    found = select(Component.ordinal).where(Component.model_id == model_id, Component.global_id.in_(global_ids))
    return list(session.scalars(found))


def called(session: Session, names: Iterable[tuple[str, str]]) -> dict[tuple[str, str], tuple[str, str, str]]:
    """Tag, name and class of components by model and GlobalId."""
    rows = session.execute(
        select(Component.model_id, Component.global_id, Component.tag, Component.name, Component.ifc_class).where(
            tuple_(Component.model_id, Component.global_id).in_(list(names))
        )
    )
    return {(model_id, global_id): (tag, name, ifc_class) for model_id, global_id, tag, name, ifc_class in rows}


def classes_of(session: Session, project_id: str) -> list[str]:
    """Every class that the project's models have, in order."""
    found = (
        select(Component.ifc_class)
        .join(Model)
        .where(Model.project_id == project_id, Model.removed_at.is_(None))
        .distinct()
    )
    return sorted(session.scalars(found))
