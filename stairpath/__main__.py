"""``python -m stairpath`` is the headless command."""

from stairpath.cli import app

if __name__ == "__main__":
    app()
