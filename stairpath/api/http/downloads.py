"""Answers that a browser shows or saves under a name."""

from __future__ import annotations

from typing import Literal
from urllib.parse import quote

How = Literal["inline", "attachment"]
"""To be looked at, or to be saved."""


def named(name: str, how: How = "attachment") -> dict[str, str]:
    """The headers of a file of any name, to be saved or to be looked at; never kept by the browser (RFC 6266, RFC 5987)."""
    return {"Content-Disposition": f"{how}; filename*=utf-8''{quote(name, safe='')}", "Cache-Control": "no-store"}
