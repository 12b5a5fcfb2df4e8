"""Connections on which nobody comes to the point are closed."""

from __future__ import annotations

import asyncio
import json
from typing import Any

import h11
from uvicorn.protocols.http.h11_impl import H11Protocol

from stairpath.api.http.guard import HEADERS

HEAD_S = 20.0
"""So long the head of a request may take, from the connection or from its first byte on."""


class HeadTimeoutProtocol(H11Protocol):
    """Closes a connection whose next request's head does not come to its end in time."""

    _late: asyncio.TimerHandle | None = None

    def _wait(self) -> None:
        if self._late is None:
            self._late = self.loop.call_later(HEAD_S, self._give_up)

    def _stop_waiting(self) -> None:
        if self._late is not None:
            self._late.cancel()
            self._late = None

    def _give_up(self) -> None:
        self._late = None
        if not self.transport.is_closing():
            self.transport.close()

    def connection_made(self, transport: Any) -> None:
        """A connection; its first request's head is waited for."""
        super().connection_made(transport)
        self._wait()

    def data_received(self, data: bytes) -> None:
        """Bytes; once a head is whole nothing is waited for, until another one begins."""
        before = self.cycle
        super().data_received(data)
        if self.cycle is not before:
            self._stop_waiting()
        elif self.conn.their_state is h11.IDLE:
            self._wait()

    def send_400_response(self, msg: str) -> None:
        """Refuse what is no HTTP in a sentence, with the head that every answer has; ``msg`` says too little."""
        body = json.dumps({"detail": "The request cannot be understood. Send it as HTTP/1.1."}).encode()
        head = {"Content-Type": "application/json", "Content-Length": str(len(body)), "Connection": "close", **HEADERS}
        answer = h11.Response(status_code=400, headers=list(head.items()), reason="Bad Request")
        for event in (answer, h11.Data(data=body), h11.EndOfMessage()):
            self.transport.write(self.conn.send(event) or b"")
        self.transport.close()

    def handle_websocket_upgrade(self, event: h11.Request) -> None:
        """A head that asks for a line that stays: it came to its end, and no other request follows."""
        self._stop_waiting()
        super().handle_websocket_upgrade(event)

    def connection_lost(self, exc: Exception | None) -> None:
        """The end of a connection."""
        self._stop_waiting()
        super().connection_lost(exc)
