"""``stairpath backup``, ``restore`` and ``verify``, for the owners of the server."""

from __future__ import annotations

import sys
from collections.abc import Callable
from pathlib import Path
from typing import Annotated

import typer


def _done(work: Callable[[], str]) -> None:
    """Do it and say it; stops with the sentence where it cannot be done."""
    from stairpath.start.backing_up import CannotBackUpError

    try:
        sys.stdout.write(work() + "\n")
    except CannotBackUpError as error:
        sys.stderr.write(f"{error}\n")
        raise typer.Exit(2) from error


def backup(target: Annotated[Path, typer.Argument(help="a new file, or a folder that backups are added to")]) -> None:
    """Write everything to a file, or add what is new to a folder, while people work."""
    from stairpath.start.backing_up import back_up
    from stairpath.work.server.state import note_backup

    def made() -> str:
        said = back_up(target)
        note_backup(str(target.resolve()))
        return said

    _done(made)


def restore(
    source: Annotated[Path, typer.Argument(help="a backup: the file, or one of the folders with a date")],
    secrets: Annotated[Path | None, typer.Option(help="the file with passwords and tokens of the same backup")] = None,
) -> None:
    """Bring a backup back into an empty database. Stop the server before."""
    from stairpath.start.backing_up import restore as bring_back

    _done(lambda: bring_back(source, secrets))


def verify() -> None:
    """Look at every file, at what rows name, and at the record, and say what is wrong."""
    from stairpath.start.backing_up import verify as look

    found = look()
    for sentence in found:
        sys.stdout.write(f"{sentence}\n")
    if found:
        raise typer.Exit(1)
    sys.stdout.write("Everything that is kept is whole.\n")
