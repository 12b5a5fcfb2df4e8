"""Checks for interference as they are kept: between what and what, how near is too near, what is left out."""

from __future__ import annotations

import io
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Literal

import numpy as np
from annotated_types import MaxLen

from stairpath.core.limits import Metres, Word
from stairpath.core.measuring.exclusions import CODES, Code
from stairpath.core.measuring.interference import TOGETHER_M, TOUCH_M, Near
from stairpath.core.visibility.rules import SHOWN, Rules, resolve, selected, simplified
from stairpath.core.visibility.selectors import Selector
from stairpath.core.visibility.traits import Mask, Traits


@dataclass(frozen=True)
class Group:
    """One side of a check: what is selected, else what rules show; and what somebody calls it."""

    select: Selector | None = None
    rules: Rules = ()
    called: Word = ""

    def members(self, traits: Traits) -> Mask:
        """Which components (n,) it has."""
        if self.select is not None:
            return selected(traits, self.select)
        shown: Mask = resolve(traits, simplified(self.rules)).state == SHOWN
        return shown


@dataclass(frozen=True)
class Check:
    """What to look for between two groups; ``leave_out`` are the rules for pairs that belong together."""

    a: Group
    b: Group
    clearance_m: Metres = 0.0
    touch_m: Metres = TOUCH_M
    together_m: Metres = TOGETHER_M
    leave_out: Annotated[tuple[Code, ...], MaxLen(len(CODES))] = CODES
    swings: bool = False
    kind: Literal["check"] = "check"


def pack_known(known: Mapping[int, Near | None], clearance_m: float, touch_m: float) -> bytes:
    """What was found of pairs, by their fingerprints, as bytes for the next run."""
    keys = np.fromiter(known, dtype=np.uint64, count=len(known))
    found = [(k, near) for k, near in enumerate(known.values()) if near is not None]
    out = io.BytesIO()
    np.savez_compressed(
        out,
        limits=np.array([clearance_m, touch_m]),
        keys=keys,
        place=np.array([k for k, _ in found], dtype=np.int64),
        overlap=np.array([near.kind == "overlap" for _, near in found], dtype=bool),
        touches=np.array([near.touches for _, near in found], dtype=bool),
        figures=np.array(
            [
                (near.depth_m, np.nan if near.volume_m3 is None else near.volume_m3, near.distance_m, *near.at_m)
                for _, near in found
            ],
            dtype=np.float64,
        ).reshape(-1, 6),
    )
    return out.getvalue()


def unpack_known(data: bytes, clearance_m: float, touch_m: float) -> dict[int, Near | None]:
    """What was found of pairs in a run before; nothing where that had another clearance or touch."""
    with np.load(io.BytesIO(data)) as kept:
        if not np.array_equal(kept["limits"], [clearance_m, touch_m]):
            return {}
        known: dict[int, Near | None] = dict.fromkeys(kept["keys"].tolist())
        keys = kept["keys"][kept["place"]].tolist()
        columns = (kept["overlap"].tolist(), kept["touches"].tolist(), kept["figures"].tolist())
    for key, overlap, touches, (depth, volume, distance, x, y, z) in zip(keys, *columns, strict=True):
        known[key] = Near(
            "overlap" if overlap else "clearance",
            depth,
            None if np.isnan(volume) else volume,
            distance,
            (x, y, z),
            touches,
        )
    return known
