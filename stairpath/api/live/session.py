"""Following: who has a project open, who presents, and what they see; one hub, typed events, nothing kept."""

from __future__ import annotations

import asyncio
import contextlib
import json
import uuid
from typing import Any
from urllib.parse import unquote

from fastapi import APIRouter, WebSocket, WebSocketDisconnect
from fastapi.concurrency import run_in_threadpool
from pydantic import ValidationError

from stairpath.api.http.door import asks, let_in_at
from stairpath.api.live.sign_ins import ENDED
from stairpath.api.schemas.live import TOLD, Did, Follows, Hand, Here, Looks, Person, Points, Present, Sees
from stairpath.core.people.roles import Action, may
from stairpath.work.base import projects
from stairpath.work.base.errors import RefusedError, TooOftenError
from stairpath.work.people.sign_ins import ASK_FIRST

router = APIRouter()

_MOST_WAITING = 256
_MOST_PEOPLE = 400


class _Seat:
    """Somebody's connection. Of the eye and the pointer only the newest waits; of the rest everything."""

    def __init__(self, name: str, may_present: bool, initials: str = "", colour: str = "") -> None:
        self.id, self.name, self.follows = uuid.uuid4().hex[:12], name, False
        self.initials, self.colour = initials, colour
        self.may_present = may_present
        self._waiting: dict[str, str] = {}
        self._number = 0
        self._woken = asyncio.Event()

    def tell(self, kind: str, text: str) -> None:
        """Have something sent."""
        newest = kind in ("here", "looks", "points", "sees")
        if not newest:
            self._number += 1
        # Taken out first, so that what is newest comes after what was told before it.
        key = kind if newest else f"{kind} {self._number}"
        self._waiting.pop(key, None)
        if len(self._waiting) < _MOST_WAITING:
            self._waiting[key] = text
        self._woken.set()

    async def next(self) -> list[str]:
        """What waits, as soon as anything does."""
        await self._woken.wait()
        self._woken.clear()
        out = list(self._waiting.values())
        self._waiting.clear()
        return out


class _Room:
    """A project that somebody has open: who is there, who presents, and what they see last."""

    def __init__(self) -> None:
        self.seats: dict[str, _Seat] = {}
        self.presenter: str | None = None
        self.last: dict[str, str] = {}

    def tell_here(self) -> None:
        """Tell everyone who is there."""
        people = [
            Person(id=s.id, name=s.name, follows=s.follows, initials=s.initials, colour=s.colour)
            for s in self.seats.values()
        ]
        for seat in self.seats.values():
            seat.tell("here", Here(you=seat.id, presenter=self.presenter, people=people).model_dump_json())

    def present(self, who: str | None) -> None:
        """Let somebody present, or nobody."""
        if who != self.presenter:
            self.presenter, self.last = who, {}
            if who is not None:
                self.seats[who].follows = False
        self.tell_here()

    def relay(self, by: _Seat, kind: str, said: dict[str, Any]) -> None:
        """Tell all others what somebody does."""
        text = json.dumps({**said, "by": by.id, "name": by.name})
        if kind in ("looks", "sees", "points"):
            self.last[kind] = text
        for seat in self.seats.values():
            if seat is not by:
                seat.tell(kind, text)


class Together:
    """The rooms of this server."""

    def __init__(self) -> None:
        self._rooms: dict[str, _Room] = {}

    def enter(self, project_id: str, seat: _Seat) -> tuple[_Room, _Seat] | None:
        """Take a seat; what the presenter sees is told at once. None where there are too many."""
        room = self._rooms.setdefault(project_id, _Room())
        if len(room.seats) >= _MOST_PEOPLE:
            return None
        room.seats[seat.id] = seat
        room.tell_here()
        for kind in ("sees", "looks", "points"):
            if kind in room.last:
                seat.tell(kind, room.last[kind])
        return room, seat

    def leave(self, project_id: str, seat: _Seat) -> None:
        """Leave one's seat; who presented does no more."""
        room = self._rooms[project_id]
        room.seats.pop(seat.id, None)
        if room.presenter == seat.id:
            room.presenter, room.last = None, {}
        if room.seats:
            room.tell_here()
        else:
            del self._rooms[project_id]


def _heard(room: _Room, seat: _Seat, text: str) -> None:
    try:
        told = TOLD.validate_json(text)
    except ValidationError:
        return  # of a newer or older page; it is not understood here, and nothing depends on it
    presents = room.presenter == seat.id
    if isinstance(told, Present):
        if told.on and seat.may_present:
            room.present(seat.id)
        elif presents:
            room.present(None)
    elif isinstance(told, Hand):
        if presents and told.to in room.seats and room.seats[told.to].may_present:
            room.present(told.to)
    elif isinstance(told, Follows):
        seat.follows = told.on
        room.tell_here()
        if told.on:
            for kind in ("sees", "looks", "points"):
                if kind in room.last:
                    seat.tell(kind, room.last[kind])
    elif isinstance(told, Did) or (presents and isinstance(told, Looks | Sees | Points)):
        room.relay(seat, told.kind, told.model_dump())


async def _send(socket: WebSocket, seat: _Seat) -> None:
    while True:
        for text in await seat.next():
            await socket.send_text(text)


@router.websocket("/api/projects/{project_id}/together")
@asks(Action.LOOK)
async def together(socket: WebSocket, project_id: str, name: str = "") -> None:
    """Be there with the others who have the project open."""
    try:
        await run_in_threadpool(projects.known, project_id)
        socket.app.state.sign_ins.check_room(socket)
    except RefusedError as error:
        await socket.close(1013 if isinstance(error, TooOftenError) else 4404, str(error)[:120])
        return
    hub: Together = socket.app.state.together
    let_in = let_in_at(socket)
    called = let_in.signed.name if let_in.signed else unquote(name).replace("\0", "").strip()[:80]
    shown = (let_in.signed.initials, let_in.signed.colour) if let_in.signed else ("", "")
    entered = hub.enter(project_id, _Seat(called or "Somebody", may(let_in.role, Action.PRESENT), *shown))
    if entered is None:
        await socket.close(1013, "Too many have this project open; try again later.")
        return
    room, seat = entered
    sending: asyncio.Task[None] | None = None
    ending: set[asyncio.Task[None]] = set()

    def end() -> None:
        ending.add(asyncio.create_task(socket.close(ENDED, ASK_FIRST), name="together ends"))

    try:
        with socket.app.state.sign_ins.over(socket, project_id, end):
            await socket.accept()
            sending = asyncio.create_task(_send(socket, seat), name="together")
            while True:
                _heard(room, seat, await socket.receive_text())
    except (WebSocketDisconnect, RuntimeError, KeyError):
        pass  # gone, or sent something that is no text
    finally:
        hub.leave(project_id, seat)
        if sending is not None:
            sending.cancel()
            with contextlib.suppress(asyncio.CancelledError, WebSocketDisconnect, RuntimeError):
                await sending
