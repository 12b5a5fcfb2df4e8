"""Federating what a project holds, and keeping where everything came to stand."""

from __future__ import annotations

import json
import math

import numpy as np
from sqlalchemy import select, text
from sqlalchemy.orm import Session

from stairpath.core.camera.subject import room_points
from stairpath.core.cutting.keyplan import document, draw_key_plan
from stairpath.core.federation.alternatives import by_file_name
from stairpath.core.federation.disciplines import CODES
from stairpath.core.federation.federate import FederatedModel, Federation, federate
from stairpath.core.federation.outline import Outline
from stairpath.store import blobs, readings
from stairpath.store.tables import Json, Model, Project


def live_models(session: Session, project_id: str) -> list[Model]:
    """The project's models that were not removed, in order."""
    return list(
        session.scalars(
            select(Model).where(Model.project_id == project_id, Model.removed_at.is_(None)).order_by(Model.position)
        )
    )


PLAN_TYPE = "application/json"
SUMMARY = 3
"""Counts what a federation keeps; projects that were federated with less are federated again."""


def outdated_projects(session: Session) -> list[str]:
    """Projects whose federation was kept before it held all that it holds now."""
    return list(
        session.scalars(
            select(Project.id).where(
                Project.federation.is_not(None),
                Project.federation["summary"].as_integer().is_distinct_from(SUMMARY),
            )
        )
    )


def _keep_plan(session: Session, federation: Federation, level: int) -> str:
    """Draw and keep the key plan of a level; returns its hash."""
    drawn = document(draw_key_plan(federation, level), federation.origin_m)
    return blobs.keep(session, json.dumps(drawn, separators=(",", ":")).encode(), PLAN_TYPE)


def _summary(session: Session, federation: Federation) -> Json:
    return {
        "summary": SUMMARY,
        "origin_m": list(federation.origin_m),
        "bounds_m": None if federation.bounds_m is None else federation.bounds_m.tolist(),
        "building_north_deg": federation.building_north_deg,
        "true_north_deg": federation.true_north_deg,
        "levels": [
            {"name": level.name, "elevation_m": level.elevation_m, "plan": _keep_plan(session, federation, i)}
            for i, level in enumerate(federation.levels)
        ],
        "rooms": [
            {
                "model": r.model,
                "global_id": r.global_id,
                "number": r.number,
                "name": r.name,
                "level": r.level,
                "corners_m": np.unique(np.round(room_points(federation, i), 4), axis=0).tolist(),
            }
            for i, r in enumerate(federation.rooms)
        ],
    }


def federated(session: Session, project_id: str) -> tuple[list[Model], Federation]:
    """The project's models that were read, and the building that they make together."""
    models = [m for m in live_models(session, project_id) if m.is_read]
    outlines: list[Outline] = [readings.load_outline(session, model) for model in models]
    return models, federate(
        outlines,
        {m.name: m.discipline_rule for m in models if m.discipline_rule in CODES},
        {m.name for m in models if m.chosen},
    )


def refederate(session: Session, project_id: str) -> Federation | None:
    """Align all models that were read and place their components; one transaction a project at a time."""
    session.execute(text("SELECT pg_advisory_xact_lock(hashtext(:id))"), {"id": project_id})
    project = session.get(Project, project_id)
    if project is None:
        return None
    models, federation = federated(session, project_id)
    for model, placed in zip(models, federation.models, strict=True):
        model.placed = {
            "by": placed.alignment.by,
            "reason": placed.alignment.reason,
            "rotation_deg": placed.alignment.rotation_deg,
            "shift_m": list(placed.alignment.shift_m),
            "matrix": placed.alignment.matrix.tolist(),
            "discipline": placed.discipline,
            "alternative": None
            if placed.alternative is None
            else {"what": placed.alternative.what, "option": placed.alternative.option},
            "problems": [{"code": p.code, "text": p.text, "components": list(p.components)} for p in placed.problems],
        }
        model.stands = placed.stands
        _keep_places(session, model.id, placed)
    project.federation = _summary(session, federation)
    project.version += 1
    return federation


_PLACES = text(
    """
    UPDATE component SET level = p.level, discipline = p.discipline, room = p.room,
        bounds_m = CASE WHEN p.x0 IS NULL THEN NULL ELSE ARRAY[p.x0, p.y0, p.z0, p.x1, p.y1, p.z1] END
    FROM unnest(
        CAST(:ordinal AS int[]), CAST(:level AS int[]), CAST(:discipline AS int[]), CAST(:room AS int[]),
        CAST(:x0 AS float8[]), CAST(:y0 AS float8[]), CAST(:z0 AS float8[]),
        CAST(:x1 AS float8[]), CAST(:y1 AS float8[]), CAST(:z1 AS float8[])
    ) AS p(ordinal, level, discipline, room, x0, y0, z0, x1, y1, z1)
    WHERE component.model_id = :model AND component.ordinal = p.ordinal
    """
)


def _keep_places(session: Session, model_id: str, placed: FederatedModel) -> None:
    columns = placed.bounds_m.reshape(-1, 6).T
    bounds = {
        name: [None if math.isnan(value) else value for value in column.tolist()]
        for name, column in zip(("x0", "y0", "z0", "x1", "y1", "z1"), columns, strict=True)
    }
    session.execute(
        _PLACES,
        {
            "model": model_id,
            "ordinal": list(range(len(placed.level))),
            "level": placed.level.tolist(),
            "discipline": placed.discipline_of.tolist(),
            "room": placed.room.tolist(),
            **bounds,
        },
    )


def set_discipline(session: Session, model: Model, code: str | None) -> None:
    """Overrule a model's discipline; None goes back to what its name and classes say."""
    model.discipline_rule = code
    refederate(session, model.project_id)


def choose_alternative(session: Session, model: Model) -> bool:
    """Let an alternative stand in place of the others for the same thing; False if it is none."""
    mine = by_file_name(model.name)
    if mine is None:
        return False
    for other in live_models(session, model.project_id):
        theirs = by_file_name(other.name)
        if theirs is not None and theirs.what == mine.what:
            other.chosen = other.stands = other.id == model.id
    project = session.get_one(Project, model.project_id)
    project.version += 1
    return True
