"""``python -m stairpath`` is the command."""

from stairpath.command import app

if __name__ == "__main__":
    app()
