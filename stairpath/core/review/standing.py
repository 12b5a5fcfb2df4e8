"""The standing views of a building: each level with and without its architecture, each room, each side."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from stairpath.core.camera.directions import standard
from stairpath.core.camera.framing import Borders, NothingToFrameError, frame
from stairpath.core.camera.inside import Room, doors_beside, stand_in
from stairpath.core.camera.pose import OUTSIDE_ANGLE_DEG, Pose
from stairpath.core.camera.subject import all_points, storey_points
from stairpath.core.cutting.cuts import Cut, PlaneCut
from stairpath.core.federation.federate import Federation
from stairpath.core.review.eye import Eye
from stairpath.core.review.view import View
from stairpath.core.visibility.rules import Rule
from stairpath.core.visibility.selectors import Of

FOLDER = "Standing views"
ASPECT = 1.6
_OFF_NORTH_DEG, _TILT_DEG = 28.0, 52.0
_CUT_ABOVE_M = 2.2
"""A level is looked into from above: cut at a height that doors reach and ceilings do not."""
_WHY = "standing view"


@dataclass(frozen=True)
class Standing:
    """A standing view: a key that stays the same from issue to issue, its name, and what is seen."""

    key: str
    name: str
    view: View


def _eye(pose: Pose) -> Eye:
    return Eye(pose.eye_m, pose.target_m, pose.up, pose.projection, pose.angle_deg, pose.height_m)


def standing_views(federation: Federation) -> list[Standing]:
    """The standing views of a building in their order, as far as there is something to be seen in each."""
    return [*_levels(federation), *_rooms(federation), *_sides(federation)]


def _levels(federation: Federation) -> Iterator[Standing]:
    bearing = federation.building_north_deg + _OFF_NORTH_DEG
    with_rooms = {room.level for room in federation.rooms}
    for number, level in enumerate(federation.levels):
        try:
            pose = frame(
                storey_points(federation, number), bearing, _TILT_DEG, ASPECT, "perspective", OUTSIDE_ANGLE_DEG,
                Borders.around(0.04),
            )  # fmt: skip
        except NothingToFrameError:
            continue
        cuts: tuple[Cut, ...] = ()
        if number in with_rooms:
            x, y, _ = pose.target_m
            cuts = (Cut("level", PlaneCut((x, y, level.elevation_m + _CUT_ABOVE_M), (0.0, 0.0, 1.0)), level.name),)
        only = Rule(Of("level", level.name), "only", why=_WHY)
        bare = Rule(Of("discipline", "ARC"), "hide", why=_WHY)
        yield Standing(f"level/{level.name}", level.name, View(_eye(pose), rules=(only,), cuts=cuts))
        yield Standing(
            f"level/{level.name}/bare",
            f"{level.name} without architecture",
            View(_eye(pose), rules=(only, bare), cuts=cuts),
        )


def _rooms(federation: Federation) -> Iterator[Standing]:
    doors = [
        m.bounds_m[m.outline.of_class(("IfcDoor",)) & ~m.apart & ~np.isnan(m.bounds_m).any(axis=(1, 2))]
        for m in federation.models
        if m.stands
    ]
    boxes = np.concatenate(doors) if doors else np.zeros((0, 2, 3))
    order = sorted(range(len(federation.rooms)), key=lambda k: (federation.rooms[k].level, federation.rooms[k].number))
    for number in order:
        room = federation.rooms[number]
        model = federation.models[room.model]
        drawn = next((each for each in model.outline.rooms if each.global_id == room.global_id), None)
        if drawn is None or not len(drawn.floor) or not model.stands:
            continue
        matrix = model.alignment.matrix
        floor = drawn.floor @ matrix[:2, :2].T + matrix[:2, 3]
        rise = float(matrix[2, 3])
        inside = Room(floor, drawn.low_m + rise, drawn.high_m + rise, doors_beside(boxes, drawn.low_m + rise))
        pose = stand_in(inside, federation.building_north_deg, ASPECT)
        name = " ".join(part for part in (room.number, room.name) if part) or "Room"
        yield Standing(f"room/{room.global_id}", name, View(_eye(pose)))


def _sides(federation: Federation) -> Iterator[Standing]:
    points = all_points(federation)
    if not len(points):
        return
    points = np.unique(points.round(3), axis=0)
    for side in standard(federation.building_north_deg):
        if side.tilt_deg == 0.0 and " " not in side.name:
            pose = frame(points, side.bearing_deg, 0.0, ASPECT, "parallel", OUTSIDE_ANGLE_DEG, Borders.around(0.04))
            yield Standing(f"side/{side.name}", f"Side: {side.name}", View(_eye(pose)))
