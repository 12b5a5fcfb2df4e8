"""Rules read from JSON, and what became of them as the JSON document of ``stairpath resolve``."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, get_args

import numpy as np

from stairpath.core.visibility.rules import (
    NO_RULE,
    NOT_STANDING,
    STATES,
    Effect,
    Resolved,
    Rule,
    colour_text,
    colour_value,
    selected,
)
from stairpath.core.visibility.selectors import parse
from stairpath.core.visibility.traits import Traits

Json = dict[str, Any]


class NotRulesError(ValueError):
    """A document that holds no rules; its message says what is wrong with it."""


def _text(rule: Mapping[str, object], key: str, place: int) -> str:
    value = rule.get(key, "")
    if not isinstance(value, str):
        raise NotRulesError(f"Rule {place}: its {key} is no text; give one.")
    return value


def _rule(rule: object, place: int) -> Rule:
    if not isinstance(rule, dict):
        raise NotRulesError(f'Rule {place} is no object; write one such as {{"select": "all", "effect": "hide"}}.')
    select, effect = _text(rule, "select", place), _text(rule, "effect", place)
    known = next((e for e in get_args(Effect) if e == effect), None)
    if known is None:
        raise NotRulesError(
            f"Rule {place}: {effect or 'nothing'} is not an effect; give one of {', '.join(get_args(Effect))}."
        )
    try:
        selector = parse(select)
        colour = None if rule.get("colour") is None else _text(rule, "colour", place)
        if colour is not None:
            colour_value(colour)
    except ValueError as error:
        raise NotRulesError(f"Rule {place}: {error}") from error
    if known == "tint" and colour is None:
        raise NotRulesError(f"Rule {place} tints without a colour; give one such as #3f83c2.")
    return Rule(selector, known, colour, why=_text(rule, "why", place))


def rules_from(document: object) -> list[Rule]:
    """The rules of a JSON list; NotRulesError with a sentence where one of them is none."""
    if not isinstance(document, list):
        raise NotRulesError("The rules are no list; write them between square brackets.")
    return [_rule(rule, place) for place, rule in enumerate(document)]


def document(traits: Traits, rules: list[Rule], resolved: Resolved) -> Json:
    """Counts, every component's state, tint and the rule that decided, and rules that select nothing."""
    reason = resolved.reason().tolist()
    ids = traits.columns["global_id"]
    models = traits.columns["model"]
    problems = [
        {"code": "selects-nothing", "text": f"Rule {place} selects nothing in the building.", "rule": place}
        for place, rule in enumerate(rules)
        if traits.count and not np.any(selected(traits, rule.select))
    ]
    return {
        "counts": resolved.counts(),
        "components": [
            {
                "global_id": ids.values[int(ids.value[k])],
                "model": models.values[int(models.value[k])],
                "state": STATES[int(resolved.state[k])],
                "tint": colour_text(int(resolved.tint[k])),
                "rule": None if reason[k] in (NO_RULE, NOT_STANDING) else reason[k],
                "stands": reason[k] != NOT_STANDING,
            }
            for k in range(traits.count)
        ],
        "problems": problems,
    }
