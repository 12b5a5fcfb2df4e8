"""Who asks, and whether they may: asked before any address answers."""

from __future__ import annotations

import ipaddress
from collections.abc import Callable
from typing import Any, TypeVar

from fastapi import Depends, WebSocketException, status
from starlette.requests import HTTPConnection
from starlette.responses import Response

from stairpath.core.people.roles import Action
from stairpath.work.base.errors import MissingError, RefusedError
from stairpath.work.base.unit_of_work import Where
from stairpath.work.people.access import LetIn, let_in
from stairpath.work.people.sign_ins import LASTS, Signed

_SERVED = ("/api", "/bcf", "/foundation")
"""What is more than the page itself, which everybody may load, also while the database is away."""
_SAFE, _PLAIN = "__Host-stairpath", "stairpath"
"""The cookie over TLS, which no other host and no plain connection can set (RFC 6265bis, 4.1.3.2), and on loopback without."""
_STATE = "let_in"
MISSING = 4404
"""The code with which a socket is closed for what does not exist."""
_LONGEST_REASON = 120
"""Bytes that a closed socket may say (RFC 6455, 5.5: 123)."""
_ACTIONS: dict[object, Action] = {}
Endpoint = TypeVar("Endpoint", bound=Callable[..., Any])


def is_secure(connection: HTTPConnection) -> bool:
    """Whether a connection is over TLS, here or as far as the proxy in front."""
    return connection.url.scheme in ("https", "wss")


def token_of(connection: HTTPConnection) -> str:
    """The token that a program sends in the head of a request (RFC 6750, 2.1); empty where it sends none."""
    kind, _, token = connection.headers.get("authorization", "").partition(" ")
    return token.strip() if kind.lower() == "bearer" else ""


def secret_of(connection: HTTPConnection) -> str:
    """What the browser keeps of its sign-in; empty where it keeps nothing."""
    return connection.cookies.get(_SAFE if is_secure(connection) else _PLAIN, "")


def keep_secret(connection: HTTPConnection, response: Response, secret: str) -> None:
    """Have the browser keep a sign-in, for no script to read; nothing ends it."""
    secure = is_secure(connection)
    if secret:
        response.set_cookie(
            _SAFE if secure else _PLAIN, secret, max_age=int(LASTS.total_seconds()), path="/", secure=secure,
            httponly=True, samesite="lax",
        )  # fmt: skip
    else:
        response.delete_cookie(
            _SAFE if secure else _PLAIN, path="/", secure=secure, httponly=True, samesite="lax",
        )  # fmt: skip


def asks(action: Action) -> Callable[[Endpoint], Endpoint]:
    """Say what an address does; one that says nothing does nothing for anybody who signs in."""

    def said(endpoint: Endpoint) -> Endpoint:
        _ACTIONS[endpoint] = action
        return endpoint

    return said


def action_of(endpoint: object) -> Action | None:
    """What an address does."""
    return _ACTIONS.get(endpoint)


def let_in_at(connection: HTTPConnection) -> LetIn:
    """Who was let in at a connection, and with which role."""
    found: LetIn = connection.scope.get(_STATE) or LetIn(None)
    return found


def signed_in(connection: HTTPConnection) -> Signed | None:
    """Who is signed in at a connection that the door has let in."""
    return let_in_at(connection).signed


def forwarded(connection: HTTPConnection) -> bool:
    """Whether a request came past a proxy, which asks for others."""
    return any(name in connection.headers for name in ("forwarded", "x-forwarded-for", "via", "x-real-ip"))


def is_loopback(connection: HTTPConnection) -> bool:
    """Whether somebody asks on this machine."""
    try:
        return ipaddress.ip_address(asked_from(connection).address).is_loopback
    except ValueError:
        return False


def asked_from(connection: HTTPConnection) -> Where:
    """Where somebody asks from."""
    return Where(connection.client.host if connection.client else "", connection.headers.get("user-agent", ""))


def _let_in(connection: HTTPConnection) -> None:
    """Find out who asks, and whether they may; every application's every address asks this."""
    if not connection.url.path.startswith(_SERVED):
        return
    action, token = action_of(connection.scope.get("endpoint")), token_of(connection)
    try:
        connection.scope[_STATE] = let_in(
            token or secret_of(connection), action, connection.path_params, asked_from(connection), bearer=bool(token)
        )
    except RefusedError as error:
        if connection.scope["type"] != "websocket":
            raise
        code = MISSING if isinstance(error, MissingError) else status.WS_1008_POLICY_VIOLATION
        raise WebSocketException(code, str(error)[:_LONGEST_REASON]) from error


DOOR = Depends(_let_in)
