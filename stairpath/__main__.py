"""``python -m stairpath`` is the headless command."""

from stairpath.cli import app

app()
