"""Each request has an id, which its answer, the log and the sentence of an error name; and all of them are counted."""

from __future__ import annotations

import time
import uuid

import structlog
from prometheus_client import CollectorRegistry, Counter, Gauge, Histogram, generate_latest
from prometheus_client.exposition import CONTENT_TYPE_LATEST as METRICS_TYPE
from starlette.datastructures import MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from stairpath.work.base import health

__all__ = ["METRICS_TYPE", "Watched", "metrics", "request_id"]

log = structlog.get_logger()

_REGISTRY = CollectorRegistry()
_ANSWERS = Counter(
    "stairpath_answers", "Answers, by method, address and status", ["method", "address", "status"], registry=_REGISTRY
)
_SECONDS = Histogram(
    "stairpath_answer_seconds", "Until an answer began", ["method", "address"], registry=_REGISTRY,
    buckets=(0.005, 0.02, 0.1, 0.5, 2.0, 10.0, 60.0),
)  # fmt: skip
_JOBS = Gauge("stairpath_jobs", "Jobs on the queue, by status", ["status"], registry=_REGISTRY)
_DATABASE = Gauge("stairpath_database_up", "Whether the database answers", registry=_REGISTRY)
_KEPT = Gauge("stairpath_kept_bytes", "Bytes that are kept by their hash", registry=_REGISTRY)
_SIGNED_IN = Gauge("stairpath_sign_ins", "Browsers and programs that are signed in", registry=_REGISTRY)


def request_id(scope: Scope) -> str:
    """The id of a request; empty for one that nobody watches."""
    found: str = scope.get("request_id", "")
    return found


def metrics() -> bytes:
    """What is counted, for Prometheus (its text format), with how things are just now."""
    now = health.look()
    _DATABASE.set(1 if now is not None else 0)
    if now is not None:
        for status, count in now.jobs.items():
            _JOBS.labels(status).set(count)
        _KEPT.set(now.kept_bytes)
        _SIGNED_IN.set(now.sign_ins)
    return generate_latest(_REGISTRY)


class Watched:
    """Gives each request its id, counts its answer, and logs one that went wrong."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """One request."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        scope["request_id"] = uuid.uuid4().hex[:12]
        begun = time.perf_counter()

        async def answer(message: Message) -> None:
            if message["type"] == "http.response.start":
                MutableHeaders(scope=message)["X-Request-Id"] = scope["request_id"]
                self._note(scope, message["status"], time.perf_counter() - begun)
            await send(message)

        with structlog.contextvars.bound_contextvars(request=scope["request_id"]):
            try:
                await self.app(scope, receive, answer)
            except Exception:
                self._note(scope, 500, time.perf_counter() - begun)
                log.exception("a request went wrong", method=scope["method"], address=_address(scope))
                raise

    def _note(self, scope: Scope, status: int, took_s: float) -> None:
        method, address = scope["method"], _address(scope)
        _ANSWERS.labels(method, address, str(status)).inc()
        _SECONDS.labels(method, address).observe(took_s)
        if status >= 500:
            log.warning(
                "an answer was an error", method=method, address=address, status=status, took_s=round(took_s, 3)
            )


def _address(scope: Scope) -> str:
    """The address as its route has it, without what was put in for its words."""
    path = getattr(scope.get("route"), "path", None)
    return f"{scope.get('root_path', '')}{path}" if path else "other"
