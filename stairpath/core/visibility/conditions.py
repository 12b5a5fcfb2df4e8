"""Conditions that components meet or not: "fire rating is missing", "diameter is over 150 mm", "in room 1.07"."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence

import numpy as np

from stairpath.core.units import OtherUnitError, converted
from stairpath.core.visibility.attributes import WHATS
from stairpath.core.visibility.condition import IS, Condition, NotAConditionError
from stairpath.core.visibility.facts import Fact, Facts, Kind
from stairpath.core.visibility.traits import Column, Mask, Traits, folded

_KINDS: dict[str, Kind] = {"property": "property", "quantity": "quantity"}
_NEAR = 1e-6
"""Figures that differ by no more than this share are equal: files round them."""
_TRUE, _FALSE = ("yes", "true", ".t.", "1"), ("no", "false", ".f.", "0")


def condition_from(said: object) -> Condition:
    """A condition as it is written in a document; raises NotAConditionError.

    >>> condition_from({"what": "property:Diameter", "is": "over", "value": "150", "unit": "mm"})
    Condition(what='property:Diameter', how='over', value=150.0, unit='mm')
    """
    if not isinstance(said, Mapping):
        raise NotAConditionError(f"{said} is no condition; write what, is, and mostly a value.")
    what, how, value, unit = (said.get(key) for key in ("what", "is", "value", "unit"))
    if how not in IS:
        raise NotAConditionError(f"{how} is no way to ask; write one of {', '.join(IS)}.")
    if isinstance(value, Sequence) and not isinstance(value, str):
        value = tuple(value)
    elif isinstance(value, Mapping):
        value = None
    elif value is not None and not isinstance(value, bool | int | float):
        value = str(value)
    return Condition(str(what), how, value, str(unit or ""))


def _text_test(condition: Condition) -> Callable[[str], bool]:
    wanted = folded(str(condition.value))
    if condition.how == "contains":
        return lambda text: wanted in folded(text)
    if condition.how == "equal":
        return lambda text: folded(text) == wanted
    return lambda text: folded(text) != wanted and bool(text)


def _of_column(column: Column, condition: Condition) -> Mask:
    """Which components meet a condition on what each has one or several of."""
    having = column.having("")
    if "" not in column.values:
        having[:] = False
    if condition.how == "missing":
        return having
    if condition.how == "present":
        return ~having
    if condition.how == "contains":
        wanted = folded(str(condition.value))
        meant = [
            i for i, names in enumerate(column.spoken) if column.values[i] and any(wanted in folded(n) for n in names)
        ]
        return column.with_values(meant)
    equal = column.having(str(condition.value))
    return equal if condition.how == "equal" else ~equal & ~having


def _meets_figure(condition: Condition, figure: float, unit: str) -> bool:
    """Whether a figure in its unit is what is asked; raises OtherUnitError for a unit of something else."""

    def asked(value: float) -> float:
        # A value that has no unit in its file is compared as it is typed.
        return converted(value, condition.unit, unit) if condition.unit and unit else value

    if isinstance(condition.value, tuple):
        low, high = sorted(asked(v) for v in condition.value)
        slack = _NEAR * max(abs(low), abs(high))
        return low - slack <= figure <= high + slack
    value = asked(float(condition.value)) if isinstance(condition.value, int | float) else math.nan
    slack = _NEAR * abs(value)
    if condition.how == "over":
        return figure > value + slack
    if condition.how == "under":
        return figure < value - slack
    return abs(figure - value) <= slack if condition.how == "equal" else abs(figure - value) > slack


def _wanted_figure(condition: Condition) -> Condition:
    """The condition with its value as a figure, where it is one."""
    if isinstance(condition.value, str):
        try:
            return Condition(condition.what, condition.how, float(condition.value.replace(",", ".")), condition.unit)
        except ValueError:
            return condition
    return condition


def _value_meets(condition: Condition, by_figure: Condition, test: Callable[[str], bool], fact: Fact, k: int) -> bool:
    """Whether one value of a fact is what is asked; the condition also with its value as a figure, and as a test of texts."""
    value = fact.values[k]
    if isinstance(value, bool) and condition.how in ("equal", "differs"):
        said = folded(str(condition.value))
        known = True if said in _TRUE else False if said in _FALSE else None
        return (known is value) == (condition.how == "equal")
    figure = float(fact.figures[k])
    if condition.how != "contains" and math.isfinite(figure) and not isinstance(by_figure.value, str | bool):
        try:
            return _meets_figure(by_figure, figure, fact.units[k])
        except OtherUnitError:
            return False  # a pressure is not over 3 mm
    if condition.how in ("over", "under", "between"):
        return False
    return test(fact.texts[k])


def _of_fact(fact: Fact, condition: Condition, count: int) -> Mask:
    out = np.zeros(count, dtype=bool)
    if condition.how in ("missing", "present"):
        meets = np.array([bool(text) for text in fact.texts], dtype=bool)
    else:
        by_figure, test = _wanted_figure(condition), _text_test(condition)
        meets = np.array(
            [_value_meets(condition, by_figure, test, fact, k) for k in range(len(fact.values))], dtype=bool
        )
    out[fact.owner[meets[fact.value]]] = True
    return out


def meets(condition: Condition, asked: Traits) -> Mask:
    """Which components (n,) meet a condition that ``condition_from`` made.

    Names compare without regard to case; in ``equal`` a ``*`` stands for anything. What differs has another value:
    a component that has none is missing it. A property of the same name in several sets counts in any of them.
    """
    what, how = condition.what, condition.how
    column = next((asked.columns[w] for w in WHATS if w == what), None)
    if column is not None:
        return _of_column(column, condition)
    facts = asked.facts
    if what == "description":
        if how in ("missing", "present"):
            has = np.array([bool(text) for text in facts.descriptions], dtype=bool)
            return has if how == "present" else ~has
        test = _text_test(condition)
        return np.array([test(text) for text in facts.descriptions], dtype=bool)
    kind, _, name = what.partition(":")
    found = np.zeros(facts.count, dtype=bool)
    for fact in facts.named(_KINDS[kind], name):
        found |= _of_fact(fact, condition, facts.count)
    return ~found if how == "missing" else found


def all_met(conditions: Sequence[Condition], asked: Traits) -> Mask:
    """Which components (n,) meet every condition."""
    out = np.ones(asked.count, dtype=bool)
    for condition in conditions:
        out &= meets(condition, asked)
    return out


def unlike(condition: Condition, facts: Facts) -> str:
    """What is wrong with a condition's unit, in a sentence: it measures something else than all there is; else nothing."""
    kind, _, name = condition.what.partition(":")
    if not condition.unit or kind not in _KINDS:
        return ""
    units = {unit for fact in facts.named(_KINDS[kind], name) for unit in fact.units if unit}
    said = ""
    for unit in sorted(units):
        try:
            converted(1.0, condition.unit, unit)
        except OtherUnitError as error:
            said = str(error)
        else:
            return ""
    return said
