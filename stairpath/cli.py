"""Every core capability without a server; JSON on stdout, progress on stderr."""

from __future__ import annotations

import json
import sys
from pathlib import Path
from typing import Annotated, NoReturn

import typer

from stairpath.core.federation import report
from stairpath.core.federation.federate import federate
from stairpath.core.federation.outline import outline
from stairpath.core.problems import CannotReadError
from stairpath.core.reading.apart import read_many
from stairpath.core.reading.intake import take_in_path
from stairpath.core.reading.model import ModelReading

app = typer.Typer(add_completion=False, no_args_is_help=True, pretty_exceptions_enable=False)


@app.callback()
def main() -> None:
    """Stair Path without a server: reads building models and answers in JSON."""


def _say(text: str) -> None:
    sys.stderr.write(text + "\n")


def _stop(text: str) -> NoReturn:
    _say(text)
    raise typer.Exit(2)


def _read(files: list[Path]) -> list[ModelReading]:
    content: list[tuple[str, bytes]] = []
    for path in files:
        try:
            content.extend(take_in_path(path))
        except CannotReadError as error:
            _stop(str(error))
    readings = []
    for result in read_many(content, on_done=lambda name: _say(f"read {name}")):
        if isinstance(result, CannotReadError):
            _stop(str(result))
        readings.append(result)
    return readings


@app.command()
def read(
    files: Annotated[list[Path], typer.Argument(help="IFC files (.ifc or .ifczip)")],
    components: Annotated[bool, typer.Option("--components", help="list every component too")] = False,
    as_json: Annotated[bool, typer.Option("--json", help="print one JSON document")] = False,
) -> None:
    """Read model files and say what is in them and how they line up."""
    readings = _read(files)
    federation = federate([outline(reading) for reading in readings])
    document = report.document(federation, readings if components else None)
    if as_json:
        sys.stdout.write(json.dumps(document, ensure_ascii=False) + "\n")
        return
    for model in document["models"]:
        alignment = model["alignment"]
        sys.stdout.write(
            f"{model['name']}: {model['schema']}, {model['length_unit']}, {model['components']} components, "
            f"{model['triangles']} triangles; aligned by {alignment['by']} ({alignment['reason']})\n"
        )
        for problem in model["problems"]:
            sys.stdout.write(f"  {problem['text']}\n")
