"""Markups: where they stand, and what they come to."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

from fastapi import APIRouter

from stairpath.api import schemas
from stairpath.api.http.door import asks
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.core.camera.pose import NoSightError
from stairpath.core.people.roles import Action
from stairpath.core.review.markups import Drawn, Markup, NotAMarkupError, drawn, moved, placed
from stairpath.work.base.errors import WrongError

router = APIRouter(prefix="/api/markups", tags=["markups"], responses=ERROR_RESPONSES)


@contextmanager
def _said() -> Iterator[None]:
    try:
        yield
    except (NotAMarkupError, NoSightError) as error:
        raise WrongError(str(error)) from error


@router.post("/placed")
@asks(Action.OWN_ACCOUNT)
def place_markup(wish: schemas.MarkupPlaced) -> Markup:
    """A markup as it is drawn in a frame, in its place in the model."""
    with _said():
        return placed(wish.id, wish.kind, wish.drawn, wish.through_m, wish.eye, wish.aspect, wish.style, wish.text)


@router.post("/moved")
@asks(Action.OWN_ACCOUNT)
def move_markup(wish: schemas.MarkupMoved) -> Markup:
    """A markup that was dragged within its plane, or one of its points."""
    with _said():
        return moved(wish.markup, wish.eye, wish.aspect, wish.start, wish.end, wish.point)


def _shape(markup: Markup, made: Drawn) -> schemas.MarkupDrawn:
    strokes = [schemas.Stroke(points_m=s.points_m.tolist(), closed=s.closed) for s in made.strokes]
    rest = {name: value for name, value in vars(made).items() if name != "strokes"}
    return schemas.MarkupDrawn(id=markup.id, strokes=strokes, **rest)


@router.post("/drawn")
@asks(Action.OWN_ACCOUNT)
def draw_markups(wish: schemas.MarkupsRequest) -> list[schemas.MarkupDrawn]:
    """What markups come to on their planes, and from where they can be read."""
    with _said():
        return [_shape(markup, drawn(markup)) for markup in wish.markups]
