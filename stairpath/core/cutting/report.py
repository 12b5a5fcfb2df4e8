"""A cut as the JSON document of ``stairpath cut``."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from stairpath.core.cutting.cut import Cut, rings_of
from stairpath.core.federation.federate import Federation
from stairpath.core.reading.model import ModelReading

Json = dict[str, Any]


def document(cut: Cut, federation: Federation, readings: Sequence[ModelReading]) -> Json:
    """Plane, area, every component with its region, and those that could not be closed; project coordinates."""
    components: list[Json] = []
    open_ones: list[Json] = []
    for model, reading, part in zip(federation.models, readings, cut.parts, strict=True):
        for owner, area, perimeter, region in zip(
            part.owner.tolist(), part.areas_m2.tolist(), part.perimeters_m.tolist(), part.polygons, strict=True
        ):
            read = reading.components[owner]
            components.append(
                {
                    "global_id": read.global_id,
                    "model": model.outline.name,
                    "class": read.ifc_class,
                    "name": read.name,
                    "area_m2": area,
                    "perimeter_m": perimeter,
                    "rings": [
                        {"hole": hole, "points_m": cut.plane.placed(ring).tolist()} for hole, ring in rings_of(region)
                    ],
                }
            )
        open_ones += [
            {"global_id": reading.components[owner].global_id, "model": model.outline.name, "gap_m": gap}
            for owner, gap in zip(part.open_owner.tolist(), part.gap_m.tolist(), strict=True)
        ]
    return {
        "plane": {"point_m": list(cut.plane.point_m), "normal": list(cut.plane.normal)},
        "area_m2": cut.area_m2,
        "components": components,
        "open": open_ones,
    }
