"""The server: routers, errors in sentences, and the built page."""

from __future__ import annotations

from pathlib import Path

import uvicorn
from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import FileResponse, JSONResponse, Response
from fastapi.staticfiles import StaticFiles
from sqlalchemy.exc import DataError
from starlette.middleware.gzip import GZipMiddleware

from stairpath.api import camera, components, files, models, projects, routes, views, walking
from stairpath.settings import settings


async def _say_what_is_wrong(request: Request, error: Exception) -> Response:
    """One sentence in place of a list of validation errors."""
    if not isinstance(error, RequestValidationError):
        raise error
    first = error.errors()[0]
    where = " ".join(str(part) for part in first["loc"] if part not in ("body", "query", "path"))
    return JSONResponse(
        {"detail": f"{where or 'The request'} is not valid ({first['msg'].lower()}); correct it and try again."}, 422
    )


async def _cannot_be_kept(request: Request, error: Exception) -> Response:
    """What PostgreSQL cannot store, such as a NUL in a text or a number beyond its range."""
    return JSONResponse(
        {"detail": "The request holds a character or a number that cannot be kept; correct it and try again."}, 422
    )


def create_app() -> FastAPI:
    """The application, with the built page if there is one."""
    app = FastAPI(
        title="Stair Path", version="1", docs_url="/api/docs", openapi_url="/api/openapi.json", redoc_url=None
    )
    app.add_middleware(GZipMiddleware, minimum_size=2048)
    app.add_exception_handler(RequestValidationError, _say_what_is_wrong)
    app.add_exception_handler(DataError, _cannot_be_kept)
    for module in (projects, models, components, camera, views, walking, routes, files):
        app.include_router(module.router)

    @app.get("/api/health", tags=["server"])
    def health() -> dict[str, str]:
        """Whether the server answers."""
        return {"status": "ok"}

    web = Path(settings().web_dir)
    if (web / "index.html").exists():
        app.mount("/assets", StaticFiles(directory=web / "assets"))

        @app.get("/{path:path}", include_in_schema=False)
        def page(path: str) -> Response:
            if path.startswith("api/"):
                return JSONResponse({"detail": "There is no such address."}, 404)
            return FileResponse(web / "index.html", headers={"Cache-Control": "no-cache"})

    return app


def main() -> None:
    """Serve on loopback until stopped."""
    uvicorn.run(
        create_app(), host=settings().host, port=settings().port, log_level="warning", timeout_graceful_shutdown=2
    )


if __name__ == "__main__":
    main()
