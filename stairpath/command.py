"""The command: the core without a server, and what whoever runs a server needs."""

from __future__ import annotations

from stairpath.cli import app
from stairpath.start.people import people

app.add_typer(people, name="people")

__all__ = ["app"]
