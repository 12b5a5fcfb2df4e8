"""Measures as JSON documents: project coordinates, components by GlobalId."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from stairpath.core.geometry.axes import Axes
from stairpath.core.measuring.clear import Clear
from stairpath.core.measuring.distance import Distance, Vector
from stairpath.core.measuring.interference import Interference

Json = dict[str, Any]


def distance_document(found: Distance, overlap: bool, north_deg: float) -> Json:
    """The document of ``stairpath measure``; ``north_deg`` is the bearing of the building's north."""
    return {
        "distance_m": found.distance_m,
        "from_m": list(found.from_m),
        "to_m": list(found.to_m),
        "along_m": list(found.along_m),
        "along_building_m": list(found.along_building_m(north_deg)),
        "horizontal_m": found.horizontal_m,
        "rise_m": found.rise_m,
        "overlap": overlap,
    }


def clear_document(found: Clear, axes: Axes, ids: Sequence[str]) -> Json:
    """The document of ``stairpath clear``; ``ids`` are the GlobalIds of all components, in order."""
    height, width = found.height, found.width
    return {
        "floor": {"level_m": float(found.floor[2]), "global_id": ids[found.component]},
        "height": {
            "m": None if height is None else height.height_m,
            "global_id": None if height is None else ids[height.component],
            "at_m": None if height is None else axes.to_project(height.at).tolist(),
        },
        "width": {
            "m": None if width is None else width.width_m,
            "at_m": None if width is None else axes.to_project(width.ends.mean(axis=0)).tolist(),
            "ends_m": [] if width is None else axes.to_project(width.ends).tolist(),
            "components": [] if width is None else [ids[c] for c in dict.fromkeys(width.components)],
        },
    }


def interference_document(found: Interference, origin_m: Vector, ids: Sequence[str]) -> Json:
    """The document of ``stairpath interference``; places are about ``origin_m``, ids as for ``clear_document``."""

    def place(at: Vector) -> list[float]:
        return [v + o for v, o in zip(at, origin_m, strict=True)]

    return {
        "checked": found.checked,
        "pairs": [
            {
                "a": ids[pair.a],
                "b": ids[pair.b],
                "kind": pair.kind,
                "depth_m": pair.depth_m,
                "volume_m3": pair.volume_m3,
                "distance_m": pair.distance_m,
                "at_m": place(pair.at_m),
                "left_out": pair.left_out,
            }
            for pair in found.pairs
        ],
        "findings": [
            {
                "pairs": list(finding.pairs),
                "at_m": place(finding.at_m),
                "components": [ids[c] for c in finding.components],
            }
            for finding in found.findings
        ],
    }
