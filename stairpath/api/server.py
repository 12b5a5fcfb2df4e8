"""The server: routers, errors in sentences, and the built page."""

from __future__ import annotations

from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from pathlib import Path
from typing import Any

import uvicorn
from fastapi import FastAPI, Request
from fastapi.responses import FileResponse, Response
from fastapi.staticfiles import StaticFiles
from starlette.middleware.gzip import GZipMiddleware

from stairpath.api.bcf import bcf_app
from stairpath.api.bcf.foundation import foundation_app
from stairpath.api.http.door import DOOR, asks, forwarded, is_loopback
from stairpath.api.http.errors import ERROR_RESPONSES, RETRY_AFTER_S, add_error_handlers, full, said
from stairpath.api.http.guard import RequestGuard
from stairpath.api.http.head_timeout import HeadTimeoutProtocol
from stairpath.api.http.methods import PAGE, Methods
from stairpath.api.http.watched import METRICS_TYPE, Watched, metrics
from stairpath.api.live.events import Hub
from stairpath.api.live.session import Together
from stairpath.api.live.session import router as together
from stairpath.api.live.sign_ins import OpenSignIns
from stairpath.api.routes import (
    account,
    bin,
    camera,
    comparing,
    components,
    cuts,
    files,
    folders,
    manual,
    markups,
    measures,
    meetings,
    members,
    models,
    people,
    programs,
    projects,
    questions,
    record,
    register,
    search,
    server,
    tasks,
    tokens,
    topics,
    views,
    visibility,
    walk_routes,
    walking,
)
from stairpath.core.people.roles import Action
from stairpath.logs import as_json_lines
from stairpath.settings import settings
from stairpath.work.base import database, health


class _Assets(StaticFiles):
    """Files of the page, each with its hash in its name."""

    def file_response(self, *args: Any, **more: Any) -> Response:
        """A file, to be kept for good."""
        answer = super().file_response(*args, **more)
        answer.headers["Cache-Control"] = "public, max-age=31536000, immutable"
        return answer


@asynccontextmanager
async def _lifespan(app: FastAPI) -> AsyncIterator[None]:
    hub = Hub()
    await hub.open()
    app.state.hub = hub
    app.state.together = Together()
    sign_ins = OpenSignIns()
    app.state.sign_ins = sign_ins
    await sign_ins.open()
    yield
    await sign_ins.close()
    await hub.close()


def create_app() -> FastAPI:
    """The application, with the built page if there is one."""
    app = FastAPI(
        title="Stair Path",
        version="1",
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        lifespan=_lifespan,
        dependencies=[DOOR],
        separate_input_output_schemas=False,
    )
    app.add_middleware(GZipMiddleware, minimum_size=2048)
    app.add_middleware(Methods)
    app.add_middleware(RequestGuard, hosts=settings().allowed_hosts.split(","))
    app.add_middleware(Watched)
    add_error_handlers(app)
    for module in (
        people,
        account,
        programs,
        server,
        tokens,
        members,
        record,
        projects,
        bin,
        models,
        comparing,
        components,
        camera,
        views,
        folders,
        visibility,
        search,
        register,
        cuts,
        tasks,
        markups,
        measures,
        walking,
        walk_routes,
        files,
        meetings,
        questions,
        topics,
        manual,
    ):
        app.include_router(module.router)

    @app.get(
        "/api/health",
        tags=["server"],
        responses={503: ERROR_RESPONSES[503], 507: ERROR_RESPONSES[507], 400: ERROR_RESPONSES[400]},
        response_model=None,
    )
    @asks(Action.ANYTHING_OPEN)
    def answers() -> Response | dict[str, str]:
        """Whether the server answers and reaches its database."""
        if not database.answers():
            return said(
                503,
                "The database cannot be reached. This is retried automatically.",
                {"Retry-After": str(RETRY_AFTER_S)},
            )
        if database.was_full():
            return full()
        return {"status": "ok"}

    @app.get(
        "/api/ready",
        tags=["server"],
        responses={503: ERROR_RESPONSES[503], 400: ERROR_RESPONSES[400]},
        response_model=None,
    )
    @asks(Action.ANYTHING_OPEN)
    def ready() -> Response | dict[str, str]:
        """Whether requests may be sent here: the database answers and has this version's tables, and no disk is full."""
        why = health.why_not_ready()
        return said(503, why, {"Retry-After": str(RETRY_AFTER_S)}) if why else {"status": "ready"}

    @app.get(
        "/api/metrics",
        tags=["server"],
        response_class=Response,
        responses={200: {"content": {"text/plain": {}}}, 400: ERROR_RESPONSES[400], 404: ERROR_RESPONSES[404]},
    )
    @asks(Action.ANYTHING_OPEN)
    def show_metrics(request: Request) -> Response:
        """What is counted, for Prometheus; for who asks on this machine, past no proxy."""
        if not is_loopback(request) or forwarded(request):
            return said(404, "There is no such address.")
        return Response(metrics(), media_type=METRICS_TYPE)

    app.include_router(together)
    app.mount("/bcf", bcf_app())
    app.mount("/foundation", foundation_app())
    web = Path(settings().web_dir)
    if (web / "index.html").exists():
        app.mount("/assets", _Assets(directory=web / "assets"))

        @app.get(PAGE, include_in_schema=False)
        @asks(Action.OWN_ACCOUNT)
        def page(path: str) -> Response:
            if path.startswith("api/"):
                return said(404, "There is no such address.")
            return FileResponse(web / "index.html", headers={"Cache-Control": "no-cache"})

    return app


def main() -> None:
    """Serve on loopback until stopped."""
    as_json_lines()
    uvicorn.run(
        create_app(),
        host=settings().host,
        port=settings().port,
        log_level="warning",
        timeout_graceful_shutdown=2,
        timeout_keep_alive=15,
        http=HeadTimeoutProtocol,
        h11_max_incomplete_event_size=32 << 10,
        server_header=False,
        ws_max_size=12 << 20,
        ws_ping_interval=20,
        ws_ping_timeout=60,
    )


if __name__ == "__main__":
    main()
