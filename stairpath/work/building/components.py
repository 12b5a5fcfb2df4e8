"""What a component is."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from stairpath.core.federation.disciplines import CODES
from stairpath.store import components, federations
from stairpath.store.tables import Component, Model
from stairpath.work.base.errors import MissingError
from stairpath.work.base.lookup import MODEL, find
from stairpath.work.base.project_rows import rows_of
from stairpath.work.base.unit_of_work import read_only


@dataclass(frozen=True)
class Known:
    """A component with its model, and what federating gave it."""

    row: Component
    model: Model
    level: str | None
    discipline: str
    room: str | None
    bounds_m: list[float] | None
    hosts: list[str]
    parts: list[str]


def known(model_id: str, global_id: str) -> Known:
    """Everything known of one component; where it stands is left out while that is worked out anew."""
    with read_only() as look:
        model = find(look, MODEL, model_id, removed=True)
        row = components.component(look.session, model.id, global_id)
        if row is None:
            raise MissingError(f"{model.name} holds no component {global_id}; it may have gone with a newer file.")
        building = rows_of(look, model.project_id).building
        hosts, parts = (
            components.within(look.session, model.id, relation, global_id) for relation in ("hosted_in", "part_of")
        )
        try:
            places = federations.places(look.session, model)
        except federations.ChangedError:
            return Known(row, model, None, "OTH", None, None, hosts, parts)
        level, room = int(places["level"][row.ordinal]), int(places["room"][row.ordinal])
        bounds = places["bounds_m"][row.ordinal]
        called = building.rooms[room] if 0 <= room < len(building.rooms) else None
        return Known(
            row,
            model,
            building.levels[level].name if 0 <= level < len(building.levels) else None,
            CODES[int(places["discipline"][row.ordinal])],
            f"{called.number} {called.name}".strip() if called else None,
            None if np.isnan(bounds).any() else [float(v) for v in bounds.reshape(-1)],
            hosts,
            parts,
        )


def project_of(model_id: str) -> str:
    """The project of a model that is in use."""
    with read_only() as look:
        return find(look, MODEL, model_id, removed=True).project_id
