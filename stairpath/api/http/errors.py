"""What is refused or goes wrong, as a status and one sentence; the same in every answer and in the document."""

from __future__ import annotations

from collections.abc import Awaitable, Callable
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse, Response
from starlette.exceptions import HTTPException as StarletteError

from stairpath.api.http.methods import allowed
from stairpath.api.http.watched import request_id
from stairpath.api.schemas.common import ErrorMessage
from stairpath.work.base import errors
from stairpath.work.base.database import CONFLICTING, NOT_STORABLE, UNREACHABLE, is_busy, is_full, note_full

STATUS: dict[type[errors.RefusedError], int] = {
    errors.MissingError: 404,
    errors.GoneError: 410,
    errors.UnfitError: 409,
    errors.WrongError: 422,
    errors.TooLargeError: 413,
    errors.StaleError: 412,
    errors.NotSignedInError: 401,
    errors.NotAllowedError: 403,
    errors.TooOftenError: 429,
}

RETRY_AFTER_S = 2
BUSY = "The server is busy: all connections to the database are taken. This is retried automatically."
FULL = "The server's disk is full, and this was not saved. Free some space there and try again."

_MEANS = {
    400: "The request cannot be understood.",
    401: "Nobody is signed in.",
    403: "Who asks may not do that, or the request came from another page.",
    404: "It does not exist.",
    408: "The request took too long to arrive.",
    409: "The current state does not allow this.",
    410: "It was deleted.",
    412: "Somebody changed it since the version that the request names.",
    413: "The request is too large.",
    422: "A value is not valid.",
    429: "It was tried too often.",
    503: "The database cannot be reached. Try again in a moment.",
    507: "The disk is full.",
}
ERROR_RESPONSES: dict[int | str, dict[str, Any]] = {
    status: {"model": ErrorMessage, "description": means} for status, means in _MEANS.items()
}
"""What any address may answer besides what is asked of it."""


def said(status: int, sentence: str, headers: dict[str, str] | None = None) -> Response:
    """One sentence with a status."""
    return JSONResponse({"detail": sentence}, status, headers=headers)


async def _refused(request: Request, error: Exception) -> Response:
    assert isinstance(error, errors.RefusedError)
    headers = None
    if isinstance(error, errors.TooOftenError):
        headers = {"Retry-After": str(error.wait_s)}
    elif isinstance(error, errors.NotSignedInError):
        headers = {"WWW-Authenticate": "Bearer"}  # RFC 6750, 3
    return said(STATUS[type(error)], str(error), headers)


async def _not_valid(request: Request, error: Exception) -> Response:
    """One sentence in place of a list of validation errors."""
    assert isinstance(error, RequestValidationError)
    first = error.errors()[0]
    if first["type"] == "value_error" and first["msg"].endswith("."):
        return said(422, first["msg"].removeprefix("Value error, "))  # a sentence of our own
    if first["type"] == "json_invalid":
        at = int(first["loc"][-1]) + 1
        return said(422, f"What was sent is no JSON; it goes wrong at character {at:,}. Correct it and try again.")
    where = " ".join(str(part) for part in first["loc"] if part not in ("body", "query", "path", "header"))
    return said(422, f"{where or 'The request'} is not valid ({first['msg'].lower()}). Correct it and try again.")


async def _cannot_be_kept(request: Request, error: Exception) -> Response:
    return said(422, "The request has a character or number that cannot be stored. Correct it and try again.")


async def _conflicting(request: Request, error: Exception) -> Response:
    return said(409, "Someone else changed the same thing at this moment. Try again.")


def full() -> Response:
    """The answer while a disk has no room left."""
    return said(507, FULL)


async def _no_room(request: Request, error: Exception) -> Response:
    if not is_full(error):
        raise error
    note_full()
    return full()


async def _away(request: Request, error: Exception) -> Response:
    if is_full(error):
        return await _no_room(request, error)
    if is_busy(error):
        return said(503, BUSY, {"Retry-After": str(RETRY_AFTER_S)})
    return said(
        503, "The database cannot be reached. This is retried automatically.", {"Retry-After": str(RETRY_AFTER_S)}
    )


_PLAIN = {404: "There is no such address.", 405: "That cannot be done at this address."}


async def _plain(request: Request, error: Exception) -> Response:
    assert isinstance(error, StarletteError)
    text = str(error.detail)
    if text in ("Not Found", "Method Not Allowed"):
        text = _PLAIN[error.status_code]
    headers = dict(error.headers or {})
    if error.status_code == 405:
        headers["Allow"] = allowed(request.app.router.routes, request.scope)
    return said(error.status_code, text, headers)


async def _gone_wrong(request: Request, error: Exception) -> Response:
    named = request_id(request.scope)
    return said(500, f"Something went wrong on the server. Try again; in its log this is request {named}.")


def add_error_handlers(app: FastAPI, otherwise: Callable[[Response], Response] = lambda answer: answer) -> None:
    """Answer everything that is refused or goes wrong with one sentence, in a form that may be another one."""

    def formed(handler: Callable[[Request, Exception], Awaitable[Response]]) -> Any:
        async def answer(request: Request, error: Exception) -> Response:
            return otherwise(await handler(request, error))

        return answer

    handlers: dict[tuple[type[Exception], ...], Callable[[Request, Exception], Awaitable[Response]]] = {
        tuple(STATUS): _refused,
        (RequestValidationError,): _not_valid,
        (StarletteError,): _plain,
        NOT_STORABLE: _cannot_be_kept,
        CONFLICTING: _conflicting,
        UNREACHABLE: _away,
        (OSError,): _no_room,
        (Exception,): _gone_wrong,
    }
    for kinds, handler in handlers.items():
        for kind in kinds:
            app.add_exception_handler(kind, formed(handler))
