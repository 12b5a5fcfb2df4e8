"""What the standard's interfaces have in common: which there are, how one signs in, and who one is."""

from __future__ import annotations

from fastapi import FastAPI

from stairpath.api.bcf import schemas
from stairpath.api.bcf.app import as_message
from stairpath.api.http.caller import Asker
from stairpath.api.http.door import DOOR, asks
from stairpath.api.http.errors import add_error_handlers
from stairpath.core.people.roles import Action

VERSION = "1.1"


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
        # A person makes a token on the page and gives it to their program; there is no flow for it yet.
        return schemas.SigningIn()

    @app.get(f"/{VERSION}/current-user")
    @asks(Action.OWN_ACCOUNT)
    def current_user(who: Asker) -> schemas.User:
        return schemas.User(id=who.said, name=who.said)

    return app
