"""Documents of the core as shapes of the wire, and back."""

from __future__ import annotations

import base64
from collections.abc import Sequence
from typing import Any, TypeVar

import numpy as np
import numpy.typing as npt
from pydantic import BaseModel, TypeAdapter

from stairpath.api import schemas
from stairpath.core.cutting.cuts import Cut
from stairpath.core.measuring.measures import Measure
from stairpath.core.review.eye import Eye
from stairpath.core.review.markups import Markup
from stairpath.core.review.view import PictureFrame, View
from stairpath.core.visibility.condition import Condition
from stairpath.core.visibility.rules import Rule

S = TypeVar("S", bound=BaseModel)
_VIEW: TypeAdapter[View] = TypeAdapter(View)
_RULES: TypeAdapter[tuple[Rule, ...]] = TypeAdapter(tuple[Rule, ...])
_CONDITIONS: TypeAdapter[tuple[Condition, ...]] = TypeAdapter(tuple[Condition, ...])
_CUTS: TypeAdapter[tuple[Cut, ...]] = TypeAdapter(tuple[Cut, ...])
_EYE: TypeAdapter[Eye] = TypeAdapter(Eye)
_MARKUPS: TypeAdapter[tuple[Markup, ...]] = TypeAdapter(tuple[Markup, ...])
_MEASURES: TypeAdapter[tuple[Measure, ...]] = TypeAdapter(tuple[Measure, ...])
_ANY: TypeAdapter[Any] = TypeAdapter(Any)


def shape_of(kind: type[S], value: object) -> S:
    """A value of the core in the shape of the same fields."""
    return kind.model_validate(_ANY.dump_python(value))


def view_shape(view: View) -> schemas.View:
    """A view as it is sent."""
    return shape_of(schemas.View, view)


def view_from(shape: schemas.View) -> View:
    """A view as it was sent."""
    return _VIEW.validate_python(shape.model_dump())


def rules_from(sent: Sequence[schemas.Rule]) -> tuple[Rule, ...]:
    """Rules as they were sent."""
    return _RULES.validate_python([rule.model_dump() for rule in sent])


def conditions_from(sent: Sequence[schemas.Condition]) -> tuple[Condition, ...]:
    """Conditions as they were sent."""
    return _CONDITIONS.validate_python([each.model_dump() for each in sent])


def cuts_from(sent: Sequence[schemas.Cut]) -> tuple[Cut, ...]:
    """Cuts as they were sent."""
    return _CUTS.validate_python([cut.model_dump() for cut in sent])


def measures_from(sent: Sequence[schemas.Measure]) -> tuple[Measure, ...]:
    """Measures as they were sent."""
    return _MEASURES.validate_python([measure.model_dump() for measure in sent])


def frame_from(sent: schemas.PictureFrame) -> PictureFrame:
    """A picture's frame as it was sent."""
    return PictureFrame(**sent.model_dump())


def eye_from(sent: schemas.Eye) -> Eye:
    """An eye as it was sent."""
    return _EYE.validate_python(sent.model_dump())


def markups_from(sent: Sequence[schemas.Markup]) -> tuple[Markup, ...]:
    """Markups as they were sent."""
    return _MARKUPS.validate_python([each.model_dump() for each in sent])


def packed(column: npt.NDArray[np.generic], kind: str) -> str:
    """Numbers as base64 of their bytes, such as ``<f4``."""
    return base64.b64encode(np.ascontiguousarray(column).astype(kind).tobytes()).decode()
