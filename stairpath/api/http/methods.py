"""HEAD as GET without its body, and OPTIONS with all that an address takes."""

from __future__ import annotations

from collections.abc import Iterable

from starlette.responses import Response
from starlette.routing import BaseRoute, Match, Mount
from starlette.types import ASGIApp, Message, Receive, Scope, Send

PAGE = "/{path:path}"
"""Where the page is: whatever nothing else answers."""


_METHODS = ("GET", "POST", "PUT", "PATCH", "DELETE")


def methods_at(routes: Iterable[BaseRoute], scope: Scope) -> set[str]:
    """The methods that an address takes; none where there is no such address."""
    found: set[str] = set()
    page: set[str] = set()
    for route in routes:
        if isinstance(route, Mount):
            match, inner = route.matches(scope)
            if match is not Match.NONE:
                found |= methods_at(route.routes, {**scope, **inner}) if route.routes else {"GET"}
            continue
        taken = {each for each in _METHODS if route.matches({**scope, "method": each})[0] is Match.FULL}
        if getattr(route, "path", None) == PAGE:
            page = taken
        else:
            found |= taken
    taken = found or page
    return taken | {"HEAD", "OPTIONS"} if "GET" in taken else taken | {"OPTIONS"} if taken else set()


def allowed(routes: Iterable[BaseRoute], scope: Scope) -> str:
    """The methods that an address takes, as the head of an answer lists them."""
    return ", ".join(sorted(methods_at(routes, scope)))


class Methods:
    """Answers HEAD and OPTIONS for every address."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """One request."""
        if scope["type"] == "http" and scope["method"] == "OPTIONS":
            methods = allowed(scope["app"].router.routes, scope)
            await Response(status_code=204 if methods else 404, headers={"Allow": methods})(scope, receive, send)
        elif scope["type"] == "http" and scope["method"] == "HEAD":
            await self._head(scope, receive, send)
        else:
            await self.app(scope, receive, send)

    async def _head(self, scope: Scope, receive: Receive, send: Send) -> None:
        ended = False

        async def heard() -> Message:
            # What goes on answering, as a stream of events does, is told that nobody listens.
            return {"type": "http.disconnect"} if ended else await receive()

        async def answer(message: Message) -> None:
            nonlocal ended
            if message["type"] == "http.response.start":
                await send(message)
                await send({"type": "http.response.body", "body": b""})
                ended = True

        await self.app({**scope, "method": "GET"}, heard, answer)
