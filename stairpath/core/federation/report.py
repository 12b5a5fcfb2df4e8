"""A federation as the JSON document of ``stairpath read``."""

from __future__ import annotations

from collections import Counter
from typing import Any

import numpy as np
import numpy.typing as npt

from stairpath.core.federation.disciplines import CODES
from stairpath.core.federation.federate import FederatedModel, Federation
from stairpath.core.federation.outline import around
from stairpath.core.reading.model import ModelReading

Json = dict[str, Any]
NO_LEVEL_NAME = "No level"


def _rounded(bounds: npt.NDArray[np.float64] | None) -> list[list[float]] | None:
    return None if bounds is None or np.isnan(bounds).any() else np.round(bounds, 6).tolist()


def _level_name(federation: Federation, level: int) -> str:
    return federation.levels[level].name if level >= 0 else NO_LEVEL_NAME


def _model(federation: Federation, model: FederatedModel) -> Json:
    o = model.outline
    return {
        "name": o.name,
        "schema": o.schema,
        "length_unit": o.length_unit,
        "components": len(o.global_ids),
        "by_class": dict(Counter(o.classes)),
        "by_level": dict(Counter(_level_name(federation, int(level)) for level in model.level)),
        "by_discipline": dict(Counter(CODES[int(code)] for code in model.discipline_of)),
        "storeys": [
            {"name": s.name, "elevation_m": round(s.elevation_m + model.alignment.shift_m[2], 6)} for s in o.storeys
        ],
        "spaces": len(o.rooms),
        "triangles": o.geometry.triangle_count,
        "bounds_own_m": _rounded(o.bounds_own_m),
        "bounds_m": _rounded(around(model.bounds_m)),
        "alignment": {
            "by": model.alignment.by,
            "rotation_deg": round(model.alignment.rotation_deg, 9),
            "shift_m": [round(c, 6) + 0.0 for c in model.alignment.shift_m],
            "reason": model.alignment.reason,
        },
        "problems": [{"code": p.code, "text": p.text, "components": list(p.components)} for p in model.problems],
    }


def document(federation: Federation, readings: list[ModelReading] | None = None) -> Json:
    """The document; with ``readings``, every component too."""
    out: Json = {
        "origin_m": list(federation.origin_m),
        "bounds_m": _rounded(federation.bounds_m),
        "building_north_deg": round(federation.building_north_deg, 9),
        "true_north_deg": None if federation.true_north_deg is None else round(federation.true_north_deg, 9),
        "levels": [{"name": level.name, "elevation_m": level.elevation_m} for level in federation.levels],
        "models": [_model(federation, model) for model in federation.models],
    }
    if readings is not None:
        out["components"] = [
            {
                "global_id": c.global_id,
                "model": model.outline.name,
                "class": c.ifc_class,
                "name": c.name,
                "tag": c.tag,
                "level": None if model.level[i] < 0 else federation.levels[int(model.level[i])].name,
                "discipline": CODES[int(model.discipline_of[i])],
                "bounds_m": _rounded(model.bounds_m[i]),
            }
            for model, reading in zip(federation.models, readings, strict=True)
            for i, c in enumerate(reading.components)
        ]
    return out
