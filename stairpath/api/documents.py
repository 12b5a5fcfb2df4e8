"""Documents of the core as shapes of the wire, and back."""

from __future__ import annotations

from typing import Any, TypeVar

from pydantic import BaseModel, TypeAdapter

from stairpath.api import shapes
from stairpath.core.review.view import View

S = TypeVar("S", bound=BaseModel)
_VIEW: TypeAdapter[View] = TypeAdapter(View)
_ANY: TypeAdapter[Any] = TypeAdapter(Any)


def shape_of(kind: type[S], value: object) -> S:
    """A value of the core in the shape of the same fields."""
    return kind.model_validate(_ANY.dump_python(value))


def view_shape(view: View) -> shapes.View:
    """A view as it is sent."""
    return shape_of(shapes.View, view)


def view_from(shape: shapes.View) -> View:
    """A view as it was sent."""
    return _VIEW.validate_python(shape.model_dump())
