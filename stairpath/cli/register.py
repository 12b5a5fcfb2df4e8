"""Finding components by conditions, and scheduling them."""

from __future__ import annotations

import json
import sys
from collections.abc import Sequence
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any

import typer

from stairpath.cli.common import AsJson, Files, app, federated, print_document, read_files, say, stop

if TYPE_CHECKING:
    from stairpath.core.reading.model import ModelReading
    from stairpath.core.visibility.traits import Mask, Traits

Where = Annotated[str | None, typer.Option(help="a JSON list of conditions, all of which must hold, or a file of it")]


def _asked(readings: Sequence[ModelReading]) -> Traits:
    from stairpath.core.visibility.traits import federation_traits

    return federation_traits(federated(readings), readings)


def _meeting(where: str | None, asked: Traits) -> Mask:
    """Which components meet the conditions that were typed; stops where they are none."""
    import numpy as np

    from stairpath.core.visibility.condition import NotAConditionError
    from stairpath.core.visibility.conditions import all_met, condition_from, unlike

    if where is None:
        return np.ones(asked.count, dtype=bool)
    try:
        text = where if where.lstrip().startswith(("[", "{")) else Path(where).read_text(encoding="utf-8")
        said: Any = json.loads(text)
    except (OSError, ValueError):
        stop(f"{where} is no JSON list of conditions; give one, or a file that holds one.")
    try:
        conditions = [condition_from(each) for each in (said if isinstance(said, list) else [said])]
    except NotAConditionError as error:
        stop(str(error))
    for condition in conditions:
        if wrong := unlike(condition, asked.facts):
            stop(wrong)
    return all_met(conditions, asked)


@app.command()
def find(files: Files, where: Where = None, as_json: AsJson = False) -> None:
    """Say which components meet conditions."""
    import numpy as np

    readings = read_files(files)
    asked = _asked(readings)
    found = np.flatnonzero(_meeting(where, asked)).tolist()

    def of(what: Any, component: int) -> str | None:
        column = asked.columns[what]
        return column.values[int(column.value[component])] or None

    components = [
        {
            "global_id": asked.global_id(k),
            "model": asked.model_of(k),
            "class": of("class", k),
            "name": of("name", k) or "",
            "tag": of("tag", k) or "",
            "level": of("level", k),
        }
        for k in found
    ]
    if as_json:
        print_document({"count": len(components), "components": components})
        return
    sys.stdout.write(f"{len(components)} components\n")
    for each in components:
        sys.stdout.write(f"{each['tag'] or each['name']} ({each['class']}) on {each['level'] or 'no level'}\n")


@app.command()
def schedule(
    files: Files,
    group_by: Annotated[str, typer.Option(help="class, type, level, ... with commas between")],
    sums: Annotated[str, typer.Option("--sum", help="length, area, volume or a quantity's name, with commas")] = "",
    where: Where = None,
    csv: Annotated[Path | None, typer.Option(help="the table as CSV")] = None,
    xlsx: Annotated[Path | None, typer.Option(help="the table as a spreadsheet")] = None,
    as_json: AsJson = False,
) -> None:
    """Count components by what they are and where, and sum their quantities."""
    from functools import cache

    from stairpath.core.register.quantities import MeshFigures, all_figures, mesh_figures
    from stairpath.core.register.schedule import NotAScheduleError, steps_of
    from stairpath.core.register.schedule import schedule as scheduled
    from stairpath.core.register.table import CSV_ENCODING, as_csv, as_xlsx, rows_of

    readings = read_files(files)
    asked = _asked(readings)

    @cache
    def mesh() -> MeshFigures:
        return all_figures([mesh_figures(reading.geometry, len(reading.components)) for reading in readings])

    names = [name.strip() for name in sums.split(",") if name.strip()]
    try:
        steps = steps_of(group_by)
        groups = scheduled(steps, names, _meeting(where, asked), asked, mesh)
    except NotAScheduleError as error:
        stop(str(error))
    rows = rows_of(steps, names, groups)
    for path, data in ((csv, as_csv(rows).encode(CSV_ENCODING)), (xlsx, as_xlsx(rows) if xlsx else b"")):
        if path is not None:
            try:
                path.write_bytes(data)
            except OSError as error:
                stop(f"{path} cannot be written ({error.strerror}); give another place.")
            say(f"wrote {path}")
    if as_json:
        print_document(
            {
                "groups": [
                    {
                        "key": list(group.key),
                        "count": len(group.components),
                        "sums": {name: vars(each) for name, each in group.sums.items()},
                    }
                    for group in groups
                ]
            }
        )
        return
    for row in rows:
        sys.stdout.write("\t".join(f"{cell:.3f}" if isinstance(cell, float) else str(cell) for cell in row) + "\n")


@app.command()
def compare(
    old: Annotated[Path, typer.Argument(help="the issue before")],
    new: Annotated[Path, typer.Argument(help="the newer issue of the same model")],
    as_json: AsJson = False,
) -> None:
    """Say what was added, removed, moved, reshaped and changed from one issue of a model to the next."""
    from stairpath.core.comparing.compare import compare as compared
    from stairpath.core.comparing.issue import Issue
    from stairpath.core.federation.placed import all_placed
    from stairpath.core.visibility.facts import plain

    readings = [reading for path in (old, new) for reading in read_files([path])]
    if len(readings) != 2:
        stop("Two issues of one model are compared; give two files that hold one model each.")
    building = federated(readings)
    before, after = (
        Issue(reading.components, placed, {s.global_id: s.name for s in reading.storeys})
        for reading, placed in zip(readings, all_placed(building), strict=True)
    )
    found = compared(before, after)
    ids = [component.global_id for component in after.components]
    document: dict[str, Any] = {
        "matched_by": found.matched_by,
        "same": found.same,
        "added": [ids[k] for k in found.added],
        "removed": [before.components[k].global_id for k in found.removed],
        "moved": [
            {"global_id": ids[k], "by_m": list(move.by_m), "turned_deg": move.turned_deg} for k, move in found.moved
        ],
        "reshaped": [ids[k] for k in found.reshaped],
        "changed": [
            {
                "global_id": ids[each.component],
                "fields": [{"name": f.name, "old": plain(f.old), "new": plain(f.new)} for f in each.fields],
            }
            for each in found.changed
        ],
    }
    if as_json:
        print_document(document)
        return
    if found.matched_by == "place":
        say("The newer issue has new GlobalIds throughout; components were matched by tag, type and place.")
    sys.stdout.write(
        ", ".join(f"{len(v) if isinstance(v, list) else v} {k}" for k, v in document.items() if k != "matched_by")
    )
    sys.stdout.write("\n")
