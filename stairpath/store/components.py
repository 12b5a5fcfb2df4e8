"""The rows of components."""

from __future__ import annotations

import json
from collections.abc import Collection, Iterable, Sequence
from typing import Any

from sqlalchemy import func, select, tuple_
from sqlalchemy.orm import Session

from stairpath.core.measuring.exclusions import Kin
from stairpath.store.documents import Details
from stairpath.store.tables import Component, Model


def component(session: Session, model_id: str, global_id: str) -> Component | None:
    """A component by its model and GlobalId."""
    return session.scalar(select(Component).where(Component.model_id == model_id, Component.global_id == global_id))


def ordinals(session: Session, model_id: str, global_ids: Collection[str]) -> list[int]:
    """The places in their model of components by GlobalId; unknown ones are left out."""
    found = select(Component.ordinal).where(Component.model_id == model_id, Component.global_id.in_(global_ids))
    return list(session.scalars(found))


def of_class(session: Session, model_id: str, stem: str) -> list[int]:
    """The places in their model of components whose class begins with a stem."""
    found = select(Component.ordinal).where(Component.model_id == model_id, Component.ifc_class.startswith(stem))
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


def _in_order(session: Session, models: Sequence[str], *columns: Any) -> list[Any]:
    """Columns of all components, model by model and as they stand in their files."""
    found: list[Any] = []
    for model_id in models:
        found += session.execute(
            select(*columns).where(Component.model_id == model_id).order_by(Component.ordinal)
        ).all()
    return found


def _detail(name: str) -> Any:
    return func.coalesce(func.jsonb_extract_path_text(Component.details, name), "")


def kin_of(session: Session, models: Sequence[str]) -> list[Kin]:
    """What each component of models belongs to, in order."""
    rows = _in_order(
        session, models, Component.model_id, Component.global_id, Component.ifc_class, Component.systems,
        _detail("hosted_in"), _detail("part_of"),
    )  # fmt: skip
    return [Kin(model, gid, cls, tuple(systems), host, whole) for model, gid, cls, systems, host, whole in rows]


def links_of(session: Session, models: Sequence[str]) -> list[tuple[str, str, list[str]]]:
    """What components of models are joined to by their files: model, GlobalId, and those of the others."""
    count = func.jsonb_array_length(func.jsonb_extract_path(Component.details, "connected"))
    rows = session.execute(
        select(Component.model_id, Component.global_id, _detail("connected")).where(
            Component.model_id.in_(models), count > 0
        )
    )
    return [(model_id, global_id, json.loads(others)) for model_id, global_id, others in rows]


def within(session: Session, model_id: str, relation: str, global_id: str) -> list[str]:
    """The components of a model that are ``hosted_in`` another one of it, or ``part_of`` it, in order."""
    found = (
        select(Component.global_id)
        .where(Component.model_id == model_id, _detail(relation) == global_id)
        .order_by(Component.ordinal)
    )
    return list(session.scalars(found))


def details_of(session: Session, model_id: str) -> list[Details]:
    """What is known of each component of a model besides what it is called, in order."""
    found = select(Component.details).where(Component.model_id == model_id).order_by(Component.ordinal)
    return list(session.scalars(found))


def materials_of(session: Session, models: Sequence[str]) -> list[str]:
    """The material of each component of models, in order."""
    return [material for (material,) in _in_order(session, models, _detail("material"))]
