"""Markups: where they stand, and what they come to."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

from fastapi import APIRouter

from stairpath.api import schemas
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.api.schemas.convert import eye_from, markups_from, shape_of
from stairpath.core.camera.pose import NoSightError
from stairpath.core.review.markups import Drawn, Markup, NotAMarkupError, Style, drawn, moved, placed
from stairpath.work.base.errors import WrongError

router = APIRouter(prefix="/api/markups", tags=["markups"], responses=ERROR_RESPONSES)


@contextmanager
def _said() -> Iterator[None]:
    try:
        yield
    except (NotAMarkupError, NoSightError) as error:
        raise WrongError(str(error)) from error


@router.post("/placed")
def place_markup(wish: schemas.MarkupPlaced) -> schemas.Markup:
    """A markup as it is drawn in a frame, in its place in the model."""
    style = Style(wish.colour, wish.width_px, wish.fill, wish.text_share)
    places = [(at[0], at[1]) for at in wish.drawn]
    through = (wish.through_m[0], wish.through_m[1], wish.through_m[2])
    with _said():
        made = placed(wish.id, wish.kind, places, through, eye_from(wish.eye), wish.aspect, style, wish.text)
    return shape_of(schemas.Markup, made)


@router.post("/moved")
def move_markup(wish: schemas.MarkupMoved) -> schemas.Markup:
    """A markup that was dragged within its plane, or one of its points."""
    (markup,) = markups_from([wish.markup])
    start, end = (wish.start[0], wish.start[1]), (wish.end[0], wish.end[1])
    with _said():
        return shape_of(schemas.Markup, moved(markup, eye_from(wish.eye), wish.aspect, start, end, wish.point))


def _shape(markup: Markup, made: Drawn) -> schemas.MarkupDrawn:
    strokes = [schemas.Stroke(points_m=s.points_m.tolist(), closed=s.closed) for s in made.strokes]
    rest = {name: value for name, value in vars(made).items() if name != "strokes"}
    return schemas.MarkupDrawn(id=markup.id, strokes=strokes, **rest)


@router.post("/drawn")
def draw_markups(wish: schemas.MarkupsRequest) -> list[schemas.MarkupDrawn]:
    """What markups come to on their planes, and from where they can be read."""
    with _said():
        return [_shape(markup, drawn(markup)) for markup in markups_from(wish.markups)]
