"""Who asks in a test."""

from __future__ import annotations

from urllib.parse import quote


def by(name: str) -> dict[str, str]:
    """The head of a request of somebody."""
    return {"X-Author": quote(name)}
