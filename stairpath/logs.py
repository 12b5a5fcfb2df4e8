"""Logs as lines of JSON, each with the id of the request that it is about. What people typed, and secrets, stand in none."""

from __future__ import annotations

import structlog


def as_json_lines() -> None:
    """Have this process write its log so."""
    structlog.configure(
        processors=[
            structlog.contextvars.merge_contextvars,
            structlog.processors.add_log_level,
            structlog.processors.TimeStamper(fmt="iso", utc=True),
            structlog.processors.format_exc_info,
            structlog.processors.JSONRenderer(ensure_ascii=False),
        ]
    )
