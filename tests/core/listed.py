"""A made-up building of three models as lists: what rules and conditions ask of its components."""

from __future__ import annotations

from types import SimpleNamespace
from typing import Any

import numpy as np

from stairpath.core.federation.disciplines import CODES
from stairpath.core.visibility.facts import Facts, facts_of
from stairpath.core.visibility.traits import BETWEEN, ModelTraits, Words, traits

LEVELS = ("Level 00", "Level 01", "Roof")
ROOMS = (("0.01", "Pump room"), ("1.04", "Wet lab"))


def words(rows: list[dict[str, str]]) -> Words:
    def of(key: str) -> list[str]:
        return [row.get(key, "") for row in rows]

    return Words(of("id"), [r.get("tag") or r["id"] for r in rows], of("class"), of("type"), of("systems"),
                 of("material"), of("name"), of("tag"))  # fmt: skip


ROWS = {
    "arc": [
        {"id": "A0", "class": "IfcWallStandardCase", "type": "W1", "material": "Brick", "tag": "W-1", "at": "0 ARC 0"},
        {"id": "A1", "class": "IfcWall", "type": "W1", "material": "Concrete", "tag": "W-2", "at": "1 ARC 1"},
        {"id": "A2", "class": "IfcCovering", "type": "C1", "tag": "C-1", "at": "1 ARC 1"},
        {"id": "A3", "class": "IfcCovering", "type": "C1", "tag": "C-2", "at": "1 ARC -1"},
        {"id": "A4", "class": "IfcCovering", "type": "C2", "tag": "C-3", "at": "2 ARC -1"},
    ],
    "air": [
        {"id": "B0", "class": "IfcDuctSegment", "systems": "Supply 1", "tag": "AD-1", "at": "0 AIR 0"},
        {"id": "B1", "class": "IfcDuctSegment", "systems": f"Supply 1{BETWEEN}Extract 2", "tag": "AD-2", "at": "1 AIR 1"},
        {"id": "A0", "class": "IfcFan", "name": "Big, loud + near", "at": "-1 AIR -1"},
    ],
    "alt": [{"id": "D0", "class": "IfcStair", "tag": "S-1", "at": "0 ARC 0"}],
}  # fmt: skip


def building(order: tuple[str, ...] = ("arc", "air", "alt"), rows=ROWS, standing: str = "arc air", told=None):
    def column(key: str, place: int) -> np.ndarray:
        parts = [row["at"].split()[place] for row in rows[key]]
        return np.array([CODES.index(p) if place == 1 else int(p) for p in parts], dtype=np.int32)

    models = [
        ModelTraits(
            k, f"QH-{k.upper()}", k in standing.split(), words(rows[k]), column(k, 0), column(k, 1), column(k, 2)
        )
        for k in order
    ]
    return traits(models, LEVELS, ROOMS, lambda: told or facts({}, rows))


def facts(told: dict[str, dict[str, Any]], rows=ROWS) -> Facts:
    """Facts of the building's components by model and GlobalId, such as ``arc/A0``."""
    keys = [f"{model}/{row['id']}" for model, of_model in rows.items() for row in of_model]
    assert set(told) <= set(keys)
    return facts_of(
        SimpleNamespace(**{"description": "", "properties": {}, "quantities": {}, **told.get(key, {})}) for key in keys
    )
