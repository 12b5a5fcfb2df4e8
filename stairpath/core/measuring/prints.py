"""Fingerprints of components where they stand, so that what did not change need not be measured again."""

from __future__ import annotations

import hashlib
from collections.abc import Mapping, Sequence

import numpy as np
import numpy.typing as npt

from stairpath.core.federation.placed import Placed
from stairpath.core.measuring.body import Body

Prints = npt.NDArray[np.uint64]

_STEP_M = 1e-6


def _print(*parts: bytes) -> np.uint64:
    digest = hashlib.blake2b(digest_size=8)
    for part in parts:
        digest.update(part)
    return np.uint64(int.from_bytes(digest.digest(), "little"))


def prints_of(parts: Sequence[Placed], swept: Mapping[int, Body] | None = None) -> Prints:
    """A fingerprint (n,) of every component's shapes and place; ``swept`` as for ``Things``."""
    found = []
    for part in parts:
        geometry = part.geometry
        shapes = [_print(s.vertices.tobytes(), s.triangles.tobytes()).tobytes() for s in geometry.shapes]
        own = np.zeros(len(part.bounds_m), dtype=np.uint64)
        placed = np.flatnonzero(geometry.owner >= 0)
        to = np.round(part.to @ geometry.matrix[placed] / _STEP_M).astype(np.int64)
        each = np.array(
            [_print(shapes[s], m.tobytes()) for s, m in zip(geometry.shape[placed].tolist(), to, strict=True)],
            dtype=np.uint64,
        )
        # In whatever order its shapes come, a component is the same; the sum runs round.
        np.add.at(own, geometry.owner[placed], each)
        found.append(own)
    prints = np.concatenate(found) if found else np.zeros(0, dtype=np.uint64)
    for number, room in (swept or {}).items():
        prints[number] += _print(room.corners.tobytes())
    return prints


def pair_prints(prints: Prints, pairs: npt.NDArray[np.int64]) -> Prints:
    """A fingerprint (k,) of each pair (k, 2) of components, in the order that it has them."""
    one, other = prints[pairs[:, 0]], prints[pairs[:, 1]]
    mixed: Prints = (one * np.uint64(0x9E3779B97F4A7C15)) ^ (other + np.uint64(0x7F4A7C15) + (one >> np.uint64(29)))
    return mixed
