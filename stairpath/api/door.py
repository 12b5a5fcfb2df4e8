"""The door: who may ask, how much may be sent, and what every answer carries."""

from __future__ import annotations

import asyncio
from collections.abc import Iterable
from urllib.parse import urlsplit

from starlette.datastructures import Headers, MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from stairpath.api.refused import said

LARGEST_BODY = 1 << 20
LARGEST_WITH_PICTURE = 12 << 20
"""A viewpoint comes with its picture as base64."""
SLOWEST_S = 30.0
"""So long a sender may be silent in the middle of a request."""
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


class SlowSenderError(Exception):
    """Whoever sends has been silent for too long."""


class Door:
    """Looks at a request before anything else does, and at the head of every answer."""

    def __init__(self, app: ASGIApp, hosts: Iterable[str]) -> None:
        self.app = app
        self.hosts = {_host_of(host.strip()) for host in hosts}

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """One request."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        headers = Headers(scope=scope)
        began = False

        async def answer(message: Message) -> None:
            nonlocal began
            if message["type"] == "http.response.start":
                began = True
                out = MutableHeaders(scope=message)
                for name, value in HEADERS.items():
                    out.setdefault(name, value)
            await send(message)

        refused = self._refusal(scope, headers)
        if refused is not None:
            await said(*refused)(scope, receive, answer)
            return
        limit = self._limit(scope)
        taken = 0

        async def hear() -> Message:
            nonlocal taken
            try:
                message = await (receive() if done else asyncio.wait_for(receive(), SLOWEST_S))
            except TimeoutError:
                raise SlowSenderError from None
            if message["type"] == "http.request":
                taken += len(message.get("body", b""))
                if limit is not None and taken > limit:
                    raise TooMuchError
                if not message.get("more_body", False):
                    mark_done()
            return message

        done = False

        def mark_done() -> None:
            nonlocal done
            done = True

        try:
            await self.app(scope, hear, answer)
        except (TooMuchError, SlowSenderError) as error:
            if began:
                raise
            slow = isinstance(error, SlowSenderError)
            sentence = "The request came too slowly; send it again." if slow else _too_much(limit or 0)
            await said(408 if slow else 413, sentence, {"Connection": "close"})(scope, receive, answer)

    def _refusal(self, scope: Scope, headers: Headers) -> tuple[int, str] | None:
        host = headers.get("host", "")
        if _host_of(host) not in self.hosts:
            return 400, "This server is not asked under that name; use the address that it prints, or allow the name."
        if scope["method"] in _WRITES:
            origin = headers.get("origin")
            elsewhere = origin is not None and urlsplit(origin).netloc.lower() != host.lower()
            if elsewhere or headers.get("sec-fetch-site", "same-origin") not in ("same-origin", "none"):
                return 403, "This was sent from another page; open Stair Path itself and do it there."
        limit, length = self._limit(scope), headers.get("content-length", "")
        if limit is not None and length.isdigit() and int(length) > limit:
            return 413, _too_much(limit)
        return None

    def _limit(self, scope: Scope) -> int | None:
        """How long a request's body may be; a model file has a limit of its own."""
        path = str(scope["path"])
        if path.endswith("/models") and scope["method"] == "POST":
            return None
        return LARGEST_WITH_PICTURE if path.endswith("/viewpoints") else LARGEST_BODY


class TooMuchError(Exception):
    """A body is longer than it may be."""


def _too_much(limit: int) -> str:
    return f"The request is larger than the {limit >> 20} MB that are taken; send less at a time."
