"""The room that doors need to open: what their leaves sweep, as bodies."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from stairpath.core.federation.doors import Swing, swings_of
from stairpath.core.federation.federate import Federation
from stairpath.core.measuring.body import Body, body, joined

Array = npt.NDArray[np.float64]


def sweep(swing: Swing, low_m: float, high_m: float, about: Array) -> Body:
    """What a leaf goes through between two heights, about a point (3,): a sector about its hinge, drawn up."""
    fan = np.vstack([[swing.hinge], swing.arc]) - about[:2]
    x, y = fan.T
    if float(np.dot(x, np.roll(y, -1)) - np.dot(y, np.roll(x, -1))) < 0:
        fan = fan[::-1]
    count = len(fan)
    # A sector of a quarter turn is convex: every one of its corners sees all others.
    flat = np.array([[0, k, k + 1] for k in range(1, count - 1)])
    k = np.arange(count)
    after = (k + 1) % count
    sides = np.concatenate([np.stack([k, after, after + count], 1), np.stack([k, after + count, k + count], 1)])
    points = np.concatenate([np.column_stack([fan, np.full(count, z - about[2])]) for z in (low_m, high_m)])
    return body(points, np.concatenate([flat[:, ::-1], flat + count, sides]))


def swept_by_doors(federation: Federation, about: Array) -> dict[int, Body]:
    """The room that the leaves of each door of a federation need, by the doors' numbers over all models."""
    found: dict[int, Body] = {}
    first = 0
    for model in federation.models:
        doors = model.outline.of_class(("IfcDoor",)) & ~model.apart
        for owner, leaves in swings_of(model.outline, model.alignment.matrix, doors).items():
            low, high = model.bounds_m[owner, :, 2].tolist()
            for leaf in leaves:
                room = sweep(leaf, low, high, about)
                number = first + owner
                found[number] = joined(found[number], room) if number in found else room
        first += len(model.outline.global_ids)
    return found
