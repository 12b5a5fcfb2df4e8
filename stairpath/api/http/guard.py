"""The door: who may ask, how much may be sent, and what every answer carries."""

from __future__ import annotations

import asyncio
from collections.abc import Iterable
from urllib.parse import urlsplit

from starlette.datastructures import Headers, MutableHeaders
from starlette.exceptions import HTTPException
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from stairpath.api.http.errors import said

LARGEST_BODY = 1 << 20
LARGEST_VIEW = 12 << 20
"""Rules may name many components one by one."""
LARGEST_WITH_PICTURE = 32 << 20
"""A viewpoint comes with its picture, for print too, as base64."""
_VIEWS = ("/changes", "/resolve", "/links", "/home", "/markups/drawn")
_PICTURES = ("/viewpoints", "/view", "/picture")
_FILES = ("/models", "/files")
"""Where files are sent; who takes them counts what comes."""
SLOWEST_S = 30.0
"""So long a sender may be silent in the middle of a request."""
_CLOSE = {"Connection": "close"}
_WRITES = {"POST", "PUT", "PATCH", "DELETE"}

HEADERS = {
    "Content-Security-Policy": (
        "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; "
        "font-src 'self' data:; connect-src 'self'; worker-src 'self' blob:; object-src 'none'; base-uri 'none'; "
        "form-action 'self'; frame-ancestors 'none'"
    ),
    "X-Content-Type-Options": "nosniff",
    "X-Frame-Options": "DENY",
    "Referrer-Policy": "same-origin",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
}


def _host_of(text: str) -> str:
    """A host's name without its port, in lower case."""
    try:
        return (urlsplit(f"//{text}").hostname or "").lower()
    except ValueError:
        return ""


class RequestGuard:
    """Looks at a request before anything else does, and at the head of every answer."""

    def __init__(self, app: ASGIApp, hosts: Iterable[str]) -> None:
        self.app = app
        self.hosts = {_host_of(host.strip()) for host in hosts}

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """One request."""
        if scope["type"] == "websocket" and self._stranger(Headers(scope=scope)):
            # Browsers let any page open one anywhere; who is not of this page is not heard.
            await send({"type": "websocket.close", "code": 1008, "reason": "Open Stair Path itself."})
            return
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        headers = Headers(scope=scope)

        async def answer(message: Message) -> None:
            if message["type"] == "http.response.start":
                out = MutableHeaders(scope=message)
                for name, value in HEADERS.items():
                    out.setdefault(name, value)
                # Nothing is kept that does not say so: browsers keep a plain 410 for good, and one day it is back.
                out.setdefault("Cache-Control", "no-store")
            await send(message)

        refused = self._refusal(scope, headers)
        if refused is not None:
            await said(*refused)(scope, receive, answer)
            return
        await self.app(scope, self._bounded(receive, self._limit(scope)), answer)

    def _bounded(self, receive: Receive, limit: int | None) -> Receive:
        """What is received, up to a limit and no slower than is waited for."""
        taken, whole = 0, False

        async def hear() -> Message:
            nonlocal taken, whole
            try:
                message = await (receive() if whole else asyncio.wait_for(receive(), SLOWEST_S))
            except TimeoutError:
                raise HTTPException(408, "The request took too long to arrive. Send it again.", _CLOSE) from None
            if message["type"] == "http.request":
                taken += len(message.get("body", b""))
                if limit is not None and taken > limit:
                    raise HTTPException(413, _too_much(limit), _CLOSE)
                whole = not message.get("more_body", False)
            return message

        return hear

    def _stranger(self, headers: Headers) -> bool:
        host, origin = headers.get("host", ""), headers.get("origin")
        elsewhere = origin is not None and urlsplit(origin).netloc.lower() != host.lower()
        return elsewhere or _host_of(host) not in self.hosts

    def _refusal(self, scope: Scope, headers: Headers) -> tuple[int, str] | None:
        host = headers.get("host", "")
        if _host_of(host) not in self.hosts:
            return (
                400,
                "This server does not answer under that name. Use the address that it prints, or allow the name in its settings.",
            )
        if scope["method"] in _WRITES:
            origin = headers.get("origin")
            elsewhere = origin is not None and urlsplit(origin).netloc.lower() != host.lower()
            if elsewhere or headers.get("sec-fetch-site", "same-origin") not in ("same-origin", "none"):
                return 403, "The request came from another page. Open Stair Path and do it there."
        limit, length = self._limit(scope), headers.get("content-length", "")
        if limit is not None and length.isdigit() and int(length) > limit:
            return 413, _too_much(limit)
        return None

    def _limit(self, scope: Scope) -> int | None:
        """How long a request's body may be; a model file has a limit of its own."""
        path = str(scope["path"])
        if path.endswith(_FILES) and scope["method"] == "POST":
            return None
        if path.endswith(_PICTURES):
            return LARGEST_WITH_PICTURE
        return LARGEST_VIEW if path.endswith(_VIEWS) else LARGEST_BODY


def _too_much(limit: int) -> str:
    return f"The request is larger than the {limit >> 20} MB that are taken; send less at a time."
