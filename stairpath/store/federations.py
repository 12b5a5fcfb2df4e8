"""Keeping where everything came to stand, and giving the building back."""

from __future__ import annotations

import json
from collections.abc import Sequence
from typing import Any

import numpy as np
from sqlalchemy import text
from sqlalchemy.orm import Session

from stairpath.core import columns
from stairpath.core.cache import Cache
from stairpath.core.federation.alignment import Alignment
from stairpath.core.federation.alternatives import Alternative
from stairpath.core.federation.federate import FederatedModel, Federation, RoomOnLevel
from stairpath.core.federation.levels import Level
from stairpath.core.federation.outline import Outline, around
from stairpath.core.federation.rooms import room_points
from stairpath.core.visibility.colours import base_colour
from stairpath.store import blobs, readings
from stairpath.store.documents import AlternativeOf, Building, KeptLevel, KeptRoom, Placed
from stairpath.store.models import live_models, models_by_id
from stairpath.store.tables import Model, Project

PLAN_TYPE = "application/json"
PLACES_TYPE = "application/vnd.stairpath.places"
SUMMARY = 5
"""Counts what a federation keeps; projects that were federated with less are federated again."""


class ChangedError(LookupError):
    """A model was read anew and the building is not put together again yet."""


def hold(session: Session, project_id: str) -> None:
    """Let nobody else federate the project until this transaction ends."""
    session.execute(text("SELECT pg_advisory_xact_lock(hashtext(:id))"), {"id": project_id})


def read_models(session: Session, project_id: str) -> list[Model]:
    """The project's models of which something was read, in order."""
    return [m for m in live_models(session, project_id) if m.is_read]


def outlines(session: Session, models: Sequence[Model]) -> list[Outline]:
    """Models as federating sees them."""
    return [readings.load_outline(session, model) for model in models]


def _keep_places(session: Session, project_id: str, placed: FederatedModel) -> tuple[str, str, tuple[str, ...]]:
    """What federating gave each component, as columns and boxes by their hash; and the colours that they count."""
    colours: dict[str, int] = {}
    colour = [
        colours.setdefault(base_colour(int(discipline), ifc_class), len(colours))
        for discipline, ifc_class in zip(placed.discipline_of, placed.outline.classes, strict=True)
    ]
    shown = columns.pack(
        {
            "level": placed.level,
            "discipline": placed.discipline_of,
            "colour": np.array(colour, dtype=np.uint16),
            "room": placed.room,
            "apart": placed.apart.astype(np.uint8),
        }
    )
    boxes = columns.pack({"bounds_m": placed.bounds_m.reshape(-1)})
    return (
        blobs.keep(session, project_id, shown, PLACES_TYPE),
        blobs.keep(session, project_id, boxes, PLACES_TYPE),
        tuple(colours),
    )


def keep_model(session: Session, model: Model, placed: FederatedModel) -> None:
    """Keep where a model came to stand, and what that gave its components."""
    shown, boxes, colours = _keep_places(session, model.project_id, placed)
    other = placed.alternative
    model.placed = Placed(
        by=placed.alignment.by,
        reason=placed.alignment.reason,
        rotation_deg=placed.alignment.rotation_deg,
        shift_m=placed.alignment.shift_m,
        matrix=placed.alignment.matrix.tolist(),
        discipline=placed.discipline,
        alternative=None if other is None else AlternativeOf(other.what, other.option),
        problems=placed.problems,
        colours=colours,
        columns=shown,
        boxes=boxes,
        elsewhere=placed.elsewhere,
    )
    model.stands = placed.stands


def keep_plan(session: Session, project_id: str, drawn: dict[str, Any]) -> str:
    """Keep the document of a key plan; returns its hash."""
    return blobs.keep(
        session, project_id, json.dumps(drawn, separators=(",", ":"), allow_nan=False).encode(), PLAN_TYPE
    )


def _bounds(federation: Federation) -> list[list[float]] | None:
    """The box around the building; around everything where nothing is near."""
    near = [m.bounds_m[~m.apart] for m in federation.models]
    box = around(np.concatenate(near)) if near else None
    found: list[list[float]] | None = None if box is None else box.tolist()
    return found


def keep_building(
    session: Session, project: Project, models: Sequence[Model], federation: Federation, plans: Sequence[str]
) -> None:
    """Keep a project's building with the hashes of its key plans, in place of what was kept before."""
    for model, placed in zip(models, federation.models, strict=True):
        keep_model(session, model, placed)
    project.federation = Building(
        origin_m=federation.origin_m,
        bounds_m=_bounds(federation),
        building_north_deg=federation.building_north_deg,
        true_north_deg=federation.true_north_deg,
        levels=tuple(
            KeptLevel(level.name, level.elevation_m, plan)
            for level, plan in zip(federation.levels, plans, strict=True)
        ),
        rooms=tuple(
            KeptRoom(
                r.model, r.global_id, r.number, r.name, r.level,
                np.unique(np.round(room_points(federation, i), 4), axis=0).tolist(),
            )
            for i, r in enumerate(federation.rooms)
        ),
        models=tuple(m.id for m in models),
        summary=SUMMARY,
    )  # fmt: skip
    project.version += 1


_columns: Cache[str, dict[str, Any]] = Cache(256)


def _placed_columns(session: Session, columns_sha: str, boxes_sha: str) -> dict[str, Any] | None:
    """Columns with boxes by their hashes, the last ones kept in memory; what a hash names never changes."""

    def load() -> dict[str, Any]:
        kept, boxes = blobs.load(session, columns_sha), blobs.load(session, boxes_sha)
        if kept is None or boxes is None:
            raise LookupError(columns_sha)
        found = {**columns.unpack(kept[0]), **columns.unpack(boxes[0])}
        found["bounds_m"] = found["bounds_m"].reshape(-1, 2, 3)
        found["apart"] = found["apart"].astype(bool)
        return found

    try:
        return _columns.get(columns_sha + boxes_sha, load)
    except LookupError:
        return None


def places(session: Session, model: Model) -> dict[str, Any]:
    """What federating gave a model's components: level, discipline, room, apart (n,), bounds_m (n, 2, 3).

    Raises ChangedError where the model was read anew since.
    """
    placed, frame = model.placed, model.frame
    found = None
    if placed is not None and placed.columns is not None and placed.boxes is not None:
        found = _placed_columns(session, placed.columns, placed.boxes)
    if found is None or frame is None or len(found["level"]) != frame.components:
        raise ChangedError(f"{model.name} is being put in its place")
    return found


def _federated_model(session: Session, model: Model, outline: Outline) -> FederatedModel:
    placed, column = model.placed, places(session, model)
    if placed is None:
        raise ChangedError(f"{model.name} is being put in its place")
    other = placed.alternative
    return FederatedModel(
        outline=outline,
        alignment=Alignment(placed.by, placed.rotation_deg, placed.shift_m, placed.reason),
        discipline=placed.discipline,
        alternative=None if other is None else Alternative(other.what, other.option),
        stands=model.stands,
        level=column["level"],
        discipline_of=column["discipline"],
        room=column["room"],
        bounds_m=column["bounds_m"],
        problems=placed.problems,
        apart=column["apart"],
        elsewhere=placed.elsewhere,
    )


def load_building(session: Session, project: Project) -> Federation:
    """The building as it was federated last, with all its triangles; ChangedError while it is put together again."""
    kept = project.federation
    if kept is None:
        raise ChangedError("it was never put together")
    rows = models_by_id(session, kept.models)
    if any(key not in rows or not rows[key].is_read for key in kept.models):
        raise ChangedError("a model of it is gone")
    models = [rows[key] for key in kept.models]
    bounds = kept.bounds_m
    return Federation(
        models=tuple(
            _federated_model(session, model, outline)
            for model, outline in zip(models, outlines(session, models), strict=True)
        ),
        levels=tuple(Level(level.name, level.elevation_m) for level in kept.levels),
        rooms=tuple(RoomOnLevel(r.model, r.global_id, r.number, r.name, r.level) for r in kept.rooms),
        origin_m=kept.origin_m,
        bounds_m=None if bounds is None else np.array(bounds),
        building_north_deg=kept.building_north_deg,
        true_north_deg=kept.true_north_deg,
    )
