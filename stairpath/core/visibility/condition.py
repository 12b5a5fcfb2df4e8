"""A condition, as it is asked and said."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, Literal, get_args

from annotated_types import MaxLen

from stairpath.core.limits import Sentence
from stairpath.core.units import NoUnitError, checked_unit
from stairpath.core.visibility.attributes import WHATS

FACTS = ("property", "quantity")
Is = Literal["equal", "differs", "contains", "over", "under", "between", "missing", "present"]
IS: tuple[Is, ...] = get_args(Is)
Value = Sentence | float | bool | tuple[float, float] | None

_SAID: dict[Is, str] = {
    "equal": "is",
    "differs": "is not",
    "contains": "contains",
    "over": "is over",
    "under": "is under",
    "between": "is between",
    "missing": "is missing",
    "present": "is given",
}


class NotAConditionError(ValueError):
    """A condition that asks nothing; the message says what to write."""


@dataclass(frozen=True)
class Condition:
    """What of a component is asked, how, and against which value; ``between`` has two figures.

    ``what`` is one of a selection's words, ``description``, or ``property:`` or ``quantity:`` and ``SET.NAME`` or
    ``NAME``. A figure without a unit is in metres, square or cubic metres, or in the file's own unit of other things.
    What is written as a text but asked as a figure becomes one. Raises NotAConditionError.
    """

    what: Sentence
    how: Is
    value: Value = None
    unit: Annotated[str, MaxLen(20)] = ""

    def __post_init__(self) -> None:
        object.__setattr__(self, "value", _value_asked(self))


Conditions = Annotated[tuple[Condition, ...], MaxLen(50)]


def _value_asked(of: Condition) -> Value:
    kind, colon, name = of.what.partition(":")
    figures = bool(colon and kind in FACTS and name.strip())
    if not figures and of.what not in (*WHATS, "description"):
        known = ", ".join(w for w in WHATS if w != "global_id")
        raise NotAConditionError(
            f"{of.what} cannot be asked; ask for {known}, description, property:NAME or quantity:NAME."
        )
    if of.how in ("missing", "present"):
        return None
    if of.unit:
        try:
            checked_unit(of.unit)
        except NoUnitError as error:
            raise NotAConditionError(str(error)) from error
    if of.how in ("over", "under", "between") and not figures:
        raise NotAConditionError(f"A {of.what} is no figure; ask whether it is equal, differs or contains.")
    if of.how == "between":
        if not isinstance(of.value, Sequence) or isinstance(of.value, str) or len(of.value) != 2:
            raise NotAConditionError(f"Between needs two figures; give a list of two instead of {of.value}.")
        low, high = sorted(_number(v) for v in of.value)
        return (low, high)
    if of.how in ("over", "under"):
        return _number(of.value)
    if of.value is None or isinstance(of.value, tuple) or of.value == "":
        raise NotAConditionError(f"{of.what} is {of.how} to nothing; give a value, or ask whether it is missing.")
    return of.value


def _number(value: Value) -> float:
    try:
        number = float(str(value).replace(",", ".")) if not isinstance(value, bool) else math.nan
    except ValueError:
        number = math.nan
    if not math.isfinite(number):
        raise NotAConditionError(f"{value} is no figure; give a number.")
    return number


def spoken(condition: Condition) -> str:
    """A condition as one says it.

    >>> spoken(Condition("property:Pset_WallCommon.FireRating", "missing"))
    'FireRating is missing'
    >>> spoken(Condition("property:Diameter", "between", (100.0, 150.0), "mm"))
    'Diameter is between 100 and 150 mm'
    """
    kind, colon, name = condition.what.partition(":")
    what = name.rpartition(".")[2] or name if colon else kind
    value = condition.value
    if value is None:
        return f"{what} {_SAID[condition.how]}"
    if isinstance(value, tuple):
        said = f"{value[0]:.6g} and {value[1]:.6g}"
    elif isinstance(value, bool):
        said = "yes" if value else "no"
    else:
        said = f"{value:.6g}" if isinstance(value, int | float) else value
    return f"{what} {_SAID[condition.how]} {said} {condition.unit}".strip()
