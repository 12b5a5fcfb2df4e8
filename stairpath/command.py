"""The command: the core without a server, and what whoever runs a server needs."""

from __future__ import annotations

from stairpath.cli import app
from stairpath.start.backup_commands import backup, restore, verify
from stairpath.start.migrate_command import migrate
from stairpath.start.people import people

app.add_typer(people, name="people")
for command in (migrate, backup, restore, verify):
    app.command()(command)

__all__ = ["app"]
