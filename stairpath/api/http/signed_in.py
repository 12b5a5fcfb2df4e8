"""Who is signed in: asked before any address answers, once there are people who sign in."""

from __future__ import annotations

from fastapi import Depends, WebSocketException, status
from starlette.requests import HTTPConnection
from starlette.responses import Response

from stairpath.work.base.errors import NotSignedInError
from stairpath.work.people import sign_ins
from stairpath.work.people.sign_ins import ASK_FIRST, LASTS, From, Signed

_SERVED = ("/api", "/bcf", "/foundation")
"""What is more than the page itself, which everybody may load, also while the database is away."""
OPEN = {
    "/api/health", "/api/me", "/api/sign-in", "/api/sign-out", "/api/links/look", "/api/links/use", "/bcf/versions",
    "/foundation/versions", "/foundation/1.1/auth",
}  # fmt: skip
"""What answers whoever asks."""
_SAFE, _PLAIN = "__Host-stairpath", "stairpath"
"""The cookie over TLS, which no other host and no plain connection can set (RFC 6265bis, 4.1.3.2), and on loopback without."""
_STATE = "signed"


def _is_secure(connection: HTTPConnection) -> bool:
    return connection.url.scheme in ("https", "wss")


def secret_of(connection: HTTPConnection) -> str:
    """What the browser keeps of its sign-in; empty where it keeps nothing."""
    return connection.cookies.get(_SAFE if _is_secure(connection) else _PLAIN, "")


def keep_secret(connection: HTTPConnection, response: Response, secret: str) -> None:
    """Have the browser keep a sign-in, for no script to read; nothing ends it."""
    secure = _is_secure(connection)
    if secret:
        response.set_cookie(
            _SAFE if secure else _PLAIN, secret, max_age=int(LASTS.total_seconds()), path="/", secure=secure,
            httponly=True, samesite="lax",
        )  # fmt: skip
    else:
        response.delete_cookie(
            _SAFE if secure else _PLAIN, path="/", secure=secure, httponly=True, samesite="lax",
        )  # fmt: skip


def signed_in(connection: HTTPConnection) -> Signed | None:
    """Who is signed in at a connection that the door has let in."""
    found: Signed | None = connection.scope.get(_STATE)
    return found


def asked_from(connection: HTTPConnection) -> From:
    """Where somebody asks from."""
    return From(connection.client.host if connection.client else "", connection.headers.get("user-agent", ""))


def let_in(connection: HTTPConnection) -> None:
    """Find out who is signed in; NotSignedInError for who has to be and is not. Every application's every address asks this."""
    path = connection.url.path
    if not path.startswith(_SERVED):
        return
    secret = secret_of(connection)
    who = sign_ins.who_is(secret) if secret else None
    connection.scope[_STATE] = who
    if who is not None or path in OPEN or not sign_ins.anybody():
        return
    if connection.scope["type"] == "websocket":
        raise WebSocketException(status.WS_1008_POLICY_VIOLATION, ASK_FIRST)
    raise NotSignedInError(ASK_FIRST)


DOOR = Depends(let_in)
