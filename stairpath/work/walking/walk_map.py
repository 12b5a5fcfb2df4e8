"""Making a project's walk map: the job that follows every federation and every change of what one walks through."""

from __future__ import annotations

import time
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from os import cpu_count

from stairpath.core.federation.federate import Federation
from stairpath.core.geometry.axes import Axes
from stairpath.core.sandbox import Progress, UnfinishedError, run_sandboxed
from stairpath.core.walking.bodies import BODIES, Body
from stairpath.core.walking.clearance import Space
from stairpath.core.walking.landing import in_every_room
from stairpath.core.walking.solids import solids_of
from stairpath.core.walking.tile import Place, ground_print, margin_m, pack, places, tile_print, tiles_at
from stairpath.core.walking.walkmap import WalkMap
from stairpath.store import federations, projects, walks
from stairpath.store.documents import MapNote, StandsAt
from stairpath.work.base.failures import note_trouble
from stairpath.work.base.limits import limits
from stairpath.work.base.unit_of_work import WORKER, unit_of_work
from stairpath.work.walking.walkable_building import bodies_of, load_map, name_numbers, names_of, rule_of


@dataclass(frozen=True)
class Made:
    """Tiles that were made and how many could be kept unchanged."""

    axes: Axes
    seconds: float
    tiles: dict[tuple[str, Place], tuple[str, bytes]]
    kept: int
    wanted: frozenset[tuple[str, Place]]


def make_tiles(
    space: Space,
    names: Sequence[tuple[str, str]],
    cell_m: float,
    bodies: Sequence[Body],
    kept: dict[tuple[str, Place], str],
    report: Progress,
) -> Made:
    """Make the tiles that changed, over all processors; ``names`` are the components' models and GlobalIds."""
    before = time.perf_counter()
    hashes = name_numbers(names)
    margins = {body.name: margin_m([body], cell_m) for body in bodies}
    where = places(space, cell_m)
    done = 0

    def make(place: Place) -> list[tuple[tuple[str, Place], str, bytes | None]]:
        nonlocal done
        grounds = {margin: ground_print(space, place, margin, hashes, cell_m) for margin in set(margins.values())}
        prints = {body.name: tile_print(grounds[margins[body.name]], body, cell_m) for body in bodies}
        changed = [body for body in bodies if kept.get((body.name, place)) != prints[body.name]]
        made = tiles_at(space, place, changed, cell_m) if changed else []
        packed = {
            body.name: pack(tile, [names[c] for c in tile.components]) for body, tile in zip(changed, made, strict=True)
        }
        done += 1
        return [((body.name, place), prints[body.name], packed.get(body.name)) for body in bodies]

    rows: list[tuple[tuple[str, Place], str, bytes | None]] = []
    with ThreadPoolExecutor(cpu_count()) as threads:
        for made in threads.map(make, where):
            rows += made
            report(done / max(len(where), 1), "")
    return Made(
        space.solids.axes,
        time.perf_counter() - before,
        {key: (made_of, data) for key, made_of, data in rows if data is not None},
        sum(data is None for _, _, data in rows),
        frozenset(key for key, _, _ in rows),
    )


def _stands(walk: WalkMap, federation: Federation) -> tuple[StandsAt, ...]:
    """Where somebody standing comes to stand in each room, in project coordinates."""
    found = []
    for index, landing in in_every_room(walk, federation).items():
        at = walk.axes.to_project(walk.place(landing.floor)).round(4)
        found.append(StandsAt(index, (float(at[0]), float(at[1]), float(at[2])), landing.bearing_deg(walk) or 0.0))
    return tuple(found)


def _teller(project_id: str) -> Progress:
    """Progress to the project's row, at most every second."""
    last = time.monotonic()

    def tell(share: float, at: str) -> None:
        nonlocal last
        if time.monotonic() - last < 1.0:
            return
        last = time.monotonic()
        with unit_of_work(WORKER) as act:
            project = projects.project_by_id(act.session, project_id)
            if project is not None:
                project.making = share
                act.tell(project_id, "walking")

    return tell


def map_floors(project_id: str, report: Progress) -> None:
    """Make the tiles of the walk map that changed since they were made; in a child process."""
    with unit_of_work(WORKER) as act:
        project = projects.project_by_id(act.session, project_id)
        if project is None or project.federation is None or walks.is_current(project):
            return
        try:
            federation = federations.load_building(act.session, project)
        except federations.ChangedError:
            return  # it is put together again first, and then this is asked for again
        wanted, rule = walks.wanted_map(project), rule_of(project)
        cell_m = walks.walking_of(project).cell_m
        bodies = list(bodies_of(project).values())
        names = names_of(project, federation)
        kept = walks.kept_prints(act.session, project_id)
    made = make_tiles(Space(solids_of(federation, rule)), names, cell_m, bodies, kept, report)
    with unit_of_work(WORKER) as act:
        project = projects.project_by_id(act.session, project_id, hold=True)
        if project is None or walks.wanted_map(project) != wanted:
            return  # what changed since has a job of its own
        walks.keep_tiles(act.session, project_id, made.tiles, made.wanted)
        act.session.flush()
        standing = load_map(act.session, project, names, made.axes, cell_m, BODIES["standing"])
        note = MapNote(
            made_for=wanted,
            origin_m=made.axes.origin_m,
            bearing_deg=made.axes.bearing_deg,
            cell_m=cell_m,
            seconds=made.seconds,
            made=len(made.tiles),
            kept=made.kept,
            stands=_stands(standing, federation),
        )
        walks.keep_note(project, note)
        act.tell(project_id, "walking")


def map_project(project_id: str) -> None:
    """Make a project's walk map in a child process; where that does not end well the project says why."""
    with unit_of_work(WORKER) as act:
        project = projects.project_by_id(act.session, project_id)
        if project is None or project.federation is None or walks.is_current(project):
            return
        wanted = project.wanted
        project.making = 0.0
        act.tell(project_id, "walking")
    try:
        run_sandboxed(map_floors, project_id, limits=limits(), on_progress=_teller(project_id))
    except UnfinishedError as error:
        note_trouble(project_id, wanted, "The walk map could not be made", error)
