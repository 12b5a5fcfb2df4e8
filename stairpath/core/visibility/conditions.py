"""Conditions that components meet or not: "fire rating is missing", "diameter is over 150 mm", "in room 1.07"."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from typing import Any

import numpy as np

from stairpath.core.units import NoUnitError, OtherUnitError, checked_unit, converted
from stairpath.core.visibility.condition import IS, Condition
from stairpath.core.visibility.facts import Fact, Facts, Kind
from stairpath.core.visibility.selectors import WHATS
from stairpath.core.visibility.traits import Column, Mask, Traits, folded

_KINDS: dict[str, Kind] = {"property": "property", "quantity": "quantity"}
_NEAR = 1e-6
"""Figures that differ by no more than this share are equal: files round them."""
_TRUE, _FALSE = ("yes", "true", ".t.", "1"), ("no", "false", ".f.", "0")


class NotAConditionError(ValueError):
    """A condition that asks nothing; the message says what to write."""


def condition_from(said: object) -> Condition:
    """A condition as it is written in a document; raises NotAConditionError.

    >>> condition_from({"what": "property:Diameter", "is": "over", "value": "150", "unit": "mm"})
    Condition(what='property:Diameter', how='over', value=150.0, unit='mm')
    """
    if not isinstance(said, Mapping):
        raise NotAConditionError(f"{said} is no condition; write what, is, and mostly a value.")
    what, how, value, unit = (said.get(key) for key in ("what", "is", "value", "unit"))
    if not isinstance(what, str) or not _is_asked(what):
        known = ", ".join(w for w in WHATS if w != "global_id")
        raise NotAConditionError(
            f"{what} cannot be asked; ask for {known}, description, property:NAME or quantity:NAME."
        )
    if how not in IS:
        raise NotAConditionError(f"{how} is no way to ask; write one of {', '.join(IS)}.")
    if how in ("missing", "present"):
        return Condition(what, how)
    if unit:
        try:
            checked_unit(str(unit))
        except NoUnitError as error:
            raise NotAConditionError(str(error)) from error
    if how in ("over", "under", "between") and not what.startswith(tuple(f"{kind}:" for kind in _KINDS)):
        raise NotAConditionError(f"A {what} is no figure; ask whether it is equal, differs or contains.")
    if how == "between":
        if not isinstance(value, Sequence) or isinstance(value, str) or len(value) != 2:
            raise NotAConditionError(f"Between needs two figures; give a list of two instead of {value}.")
        low, high = sorted(_number(v) for v in value)
        return Condition(what, how, (low, high), str(unit or ""))
    if how in ("over", "under"):
        return Condition(what, how, _number(value), str(unit or ""))
    if value is None or (isinstance(value, Sequence | Mapping) and not isinstance(value, str)) or value == "":
        raise NotAConditionError(f"{what} is {how} to nothing; give a value, or ask whether it is missing.")
    return Condition(what, how, value if isinstance(value, bool | int | float) else str(value), str(unit or ""))


def _is_asked(what: str) -> bool:
    kind, colon, name = what.partition(":")
    return what in WHATS or what == "description" or bool(colon and kind in _KINDS and name.strip())


def _number(value: Any) -> float:
    try:
        number = float(str(value).replace(",", ".")) if not isinstance(value, bool) else math.nan
    except ValueError:
        number = math.nan
    if not math.isfinite(number):
        raise NotAConditionError(f"{value} is no figure; give a number.")
    return number


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
