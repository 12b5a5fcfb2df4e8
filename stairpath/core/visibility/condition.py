"""A condition, as it is asked and said."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, get_args

Is = Literal["equal", "differs", "contains", "over", "under", "between", "missing", "present"]
IS: tuple[Is, ...] = get_args(Is)
Value = str | float | bool | tuple[float, float] | None

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


@dataclass(frozen=True)
class Condition:
    """What of a component is asked, how, and against which value; ``between`` has two figures.

    ``what`` is one of a selection's words, ``description``, or ``property:`` or ``quantity:`` and ``SET.NAME`` or
    ``NAME``. A figure without a unit is in metres, square or cubic metres, or in the file's own unit of other things.
    """

    what: str
    how: Is
    value: Value = None
    unit: str = ""


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
