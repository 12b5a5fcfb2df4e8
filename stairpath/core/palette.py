"""The drawing office's colours: of the page, of what is marked on the stage, of drawings and of what is printed."""

from __future__ import annotations

from typing import Final

FILM: Final = "#f3f1ec"
PAPER: Final = "#faf8f4"
LINE: Final = "#d9d3c6"
INK: Final = "#1e2b36"
SOFT: Final = "#54616c"
PICK: Final = "#e08a1e"
PICK_INK: Final = "#8f5206"
HERE: Final = "#0b6f78"
PLUM: Final = "#7a3b6b"
WRONG: Final = "#a3361b"
