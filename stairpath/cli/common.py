"""What every command shares: reading files, saying how far it is, and stopping with one sentence."""

from __future__ import annotations

import json
import sys
from collections.abc import Sequence
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, NoReturn

import typer

if TYPE_CHECKING:
    from stairpath.core.federation.federate import Federation
    from stairpath.core.reading.model import ModelReading
    from stairpath.core.visibility.traits import Mask

app = typer.Typer(add_completion=False, no_args_is_help=True, pretty_exceptions_enable=False)

Files = Annotated[list[Path], typer.Argument(help="IFC files (.ifc or .ifczip)")]
AsJson = Annotated[bool, typer.Option("--json", help="print one JSON document")]


@app.callback()
def main() -> None:
    """Stair Path without a server: reads building models and answers in JSON."""


def say(text: str) -> None:
    """Progress and trouble, for people."""
    sys.stderr.write(text + "\n")


def stop(text: str) -> NoReturn:
    """End with the sentence and exit code 2."""
    say(text)
    raise typer.Exit(2)


def print_document(document: object) -> None:
    """One JSON document and nothing else."""
    sys.stdout.write(json.dumps(document, ensure_ascii=False) + "\n")


def read_files(files: list[Path]) -> list[ModelReading]:
    """The readings of all files, read side by side; stops at the first that cannot be read."""
    from stairpath.core.files import scratch_folder
    from stairpath.core.problems import CannotReadError
    from stairpath.core.reading.intake import take_in_path
    from stairpath.core.reading.sandboxed import read_many

    sources: list[tuple[str, Path]] = []
    with scratch_folder() as folder:
        for path in files:
            try:
                sources.extend(take_in_path(path, folder))
            except CannotReadError as error:
                stop(str(error))
        results = read_many(sources, on_done=lambda name: say(f"read {name}"))
    readings = []
    for result in results:
        if isinstance(result, CannotReadError):
            stop(str(result))
        readings.append(result)
    return readings


def federated(readings: Sequence[ModelReading]) -> Federation:
    """The readings as one building."""
    from stairpath.core.federation.federate import federate
    from stairpath.core.federation.outline import outline

    return federate([outline(reading) for reading in readings])


def read_building(files: list[Path]) -> Federation:
    """The files as one building."""
    return federated(read_files(files))


def chosen(readings: Sequence[ModelReading], federation: Federation, select: str) -> Mask:
    """Which components a SELECT means, over all models; stops where it is none, or selects nothing."""
    from stairpath.core.visibility.rules import selected
    from stairpath.core.visibility.selectors import NotASelectorError, parse
    from stairpath.core.visibility.traits import federation_traits

    try:
        selector = parse(select)
    except NotASelectorError as error:
        stop(str(error))
    mask = selected(federation_traits(federation, readings), selector)
    if not mask.any():
        stop(f"{select} selects nothing in the building; write all, a GlobalId, or such as discipline:AIR.")
    return mask


def numbers(text: str, names: str) -> tuple[float, ...]:
    """Numbers between commas, as many as there are names; stops where they are not."""
    try:
        numbers = tuple(float(part) for part in text.split(","))
    except ValueError:
        numbers = ()
    if len(numbers) != len(names.split(",")):
        stop(f"{text} cannot be used; give {names} as numbers with commas between.")
    return numbers
