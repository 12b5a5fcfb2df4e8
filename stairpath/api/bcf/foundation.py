"""What the standard's interfaces have in common: which there are, how one signs in, and who one is."""

from __future__ import annotations

from typing import Any
from urllib.parse import parse_qsl

from fastapi import FastAPI, Request, Response
from fastapi.concurrency import run_in_threadpool
from fastapi.responses import JSONResponse

from stairpath.api.bcf import schemas
from stairpath.api.bcf.app import as_message
from stairpath.api.http.caller import Asker
from stairpath.api.http.door import DOOR, asks
from stairpath.api.http.errors import add_error_handlers
from stairpath.core.people.roles import Action
from stairpath.work.people import oauth, post

VERSION = "1.1"
_FORM: dict[str, Any] = {
    "requestBody": {"content": {"application/x-www-form-urlencoded": {"schema": {"type": "object"}}}}
}


def foundation_app() -> FastAPI:
    """The common interface as an application of its own."""
    app = FastAPI(
        title="Stair Path",
        version=VERSION,
        docs_url=None,
        redoc_url=None,
        openapi_url=f"/{VERSION}/openapi.json",
        responses={code: {"model": schemas.Wrong} for code in (400, 401)},
        dependencies=[DOOR],
    )
    add_error_handlers(app, as_message)

    @app.get("/versions")
    @asks(Action.ANYTHING_OPEN)
    def versions() -> schemas.ApiVersions:
        return schemas.ApiVersions(
            versions=[
                schemas.ApiVersion(api_id="foundation", version_id=VERSION, detailed_version=VERSION),
                schemas.ApiVersion(api_id="bcf", version_id="3.0", detailed_version="3.0", api_base_url="/bcf/3.0"),
            ]
        )

    @app.get(f"/{VERSION}/auth")
    @asks(Action.ANYTHING_OPEN)
    def signing_in() -> schemas.SigningIn:
        return schemas.SigningIn(
            oauth2_auth_url=post.address("/authorize"),
            oauth2_token_url=post.address("/foundation/oauth2/token"),
            supported_oauth2_flows=["authorization_code_grant"],
        )

    @app.post(
        "/oauth2/token", response_class=Response, openapi_extra=_FORM, responses={200: {"model": schemas.ProgramToken}}
    )
    @asks(Action.ANYTHING_OPEN)
    async def token(request: Request) -> Response:
        form = dict(parse_qsl((await request.body()).decode(errors="replace"), keep_blank_values=True))
        status, body, headers = await run_in_threadpool(oauth.token, form)
        kept = {name: value for name, value in headers.items() if name.lower() in ("cache-control", "pragma")}
        return JSONResponse(body, status, headers=kept)

    @app.get(f"/{VERSION}/current-user")
    @asks(Action.OWN_ACCOUNT)
    def current_user(who: Asker) -> schemas.User:
        return schemas.User(id=who.said, name=who.said)

    return app
