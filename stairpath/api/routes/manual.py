"""The API's documentation as a page that needs nothing from elsewhere."""

from __future__ import annotations

from html import escape
from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse

from stairpath.api.http.door import asks
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.core import palette
from stairpath.core.people.roles import Action

router = APIRouter(prefix="/api", tags=["server"], responses={400: ERROR_RESPONSES[400]})

_STYLE = f"""
body {{ font: 15px/1.5 system-ui, sans-serif; color: {palette.INK}; background: {palette.PAPER}; max-width: 56rem; margin: 2rem auto; padding: 0 1rem}}
h1 {{ font-size: 1.6rem}} h2 {{ font-size: 1.15rem; border-bottom: 1px solid {palette.LINE}; margin-top: 2rem}}
code {{ font: 14px ui-monospace, monospace}} dt {{ margin-top: .8rem}} dd {{ margin-left: 1.5rem; color: {palette.SOFT}}}
"""


def _takes(operation: dict[str, Any]) -> str:
    parts = [f"{p['name']} ({p['in']})" for p in operation.get("parameters", []) if p["in"] != "path"]
    for kind, media in operation.get("requestBody", {}).get("content", {}).items():
        parts.append(str(media.get("schema", {}).get("$ref", kind)).rsplit("/", 1)[-1])
    return f" Takes {', '.join(map(escape, parts))}." if parts else ""


def _entry(path: str, method: str, operation: dict[str, Any]) -> str:
    said = escape(operation.get("description") or operation.get("summary", ""))
    codes = ", ".join(code for code in sorted(operation["responses"]) if code < "300")
    return f"<dt><code>{method.upper()} {escape(path)}</code></dt><dd>{said}{_takes(operation)} Answers {codes}.</dd>"


@router.get("/docs", include_in_schema=False)
@asks(Action.LOOK)
def read_manual(request: Request) -> HTMLResponse:
    """Every address with what it does, from the OpenAPI document."""
    document = request.app.openapi()
    groups: dict[str, list[str]] = {}
    for path, methods in document["paths"].items():
        for method, operation in methods.items():
            groups.setdefault(operation.get("tags", ["server"])[0], []).append(_entry(path, method, operation))
    body = "".join(f"<h2>{escape(tag)}</h2><dl>{''.join(entries)}</dl>" for tag, entries in groups.items())
    return HTMLResponse(
        f"<!doctype html><html lang=en><title>Stair Path API</title><style>{_STYLE}</style><h1>Stair Path API</h1>"
        '<p>The whole document, with every shape: <a href="/api/openapi.json">openapi.json</a>.</p>' + body
    )
