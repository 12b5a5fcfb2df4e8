"""Rules resolved for very many components, against the same rules asked of one component after another."""

from __future__ import annotations

import time

import numpy as np

from bench.measure import Measure, middle
from stairpath.core.visibility.facts import facts_of
from stairpath.core.visibility.rules import Rule, resolve
from stairpath.core.visibility.selectors import AllBut, Both, Of, These
from stairpath.core.visibility.traits import ModelTraits, Traits, Words, traits

COMPONENTS, RULES = 100_000, 50
_RUNS = 15
_MOST_MS = 30.0


def _building() -> tuple[Traits, list[str], dict[str, list[str]]]:
    chance = np.random.default_rng(7)

    def texts(stem: str, kinds: int) -> list[str]:
        return [f"{stem}{k}" for k in chance.integers(0, kinds, COMPONENTS)]

    ids = [f"{k:022d}" for k in range(COMPONENTS)]
    words = Words(ids, ids, texts("IfcKind", 30), texts("T", 400), texts("S", 40), texts("M", 40), ids, ids)
    where = [chance.integers(low, high, COMPONENTS).astype(np.int32) for low, high in ((0, 10), (0, 8), (-1, 300))]
    built = traits(
        [ModelTraits("m", "QH", True, words, *where)],
        [f"L{k}" for k in range(10)],
        [(str(k), f"Room {k}") for k in range(300)],
        lambda: facts_of(()),
    )
    plain = {"level": [f"L{k}" for k in where[0]], "type": list(words.types), "class": list(words.classes)}
    return built, ids, plain


def _rules(ids: list[str]) -> list[Rule]:
    out = []
    for k in range(RULES):
        select = (
            Of("level", f"L{k % 10}"),
            Both((Of("level", f"L{k % 10}"), Of("discipline", "AIR"))),
            Of("type", f"T{k}"),
            AllBut(Of("system", f"S{k % 40}")),
            Of("class", f"IfcKind{k % 30}"),
            These({"m": tuple(ids[k * 100 : k * 100 + 2000])}),
        )[k % 6]
        effect = ("hide", "fade", "show", "tint", "only")[k % 5]
        out.append(Rule(select, effect, "#e08a1e" if effect == "tint" else None))  # type: ignore[arg-type]
    return out


def _one_by_one(plain: dict[str, list[str]]) -> float:
    """Seconds to compare one text of each component with one rule, fifty times, in a plain loop."""
    started = time.perf_counter()
    for k in range(RULES):
        what = ("level", "type", "class")[k % 3]
        wanted = plain[what][k]
        for text in plain[what]:
            _ = text == wanted
    return time.perf_counter() - started


def measure() -> list[Measure]:
    """Fifty rules of all sorts for a hundred thousand components."""
    built, ids, plain = _building()
    rules = _rules(ids)
    resolve(built, rules)
    ours = []
    for _ in range(_RUNS):
        started = time.perf_counter()
        resolve(built, rules)
        ours.append(1000 * (time.perf_counter() - started))
    loop = middle([1000 * _one_by_one(plain) for _ in range(3)])
    figure = f"median of {_RUNS} runs: {COMPONENTS:,} made-up components and {RULES} rules of all sorts, lists of 2,000 among them"
    return [
        Measure("States of 100,000 components by 50 rules", middle(ours), _MOST_MS, "ms", 1.0,
                f"{figure}. The reference is the limit."),
        Measure("The same against a loop", middle(ours), loop, "ms", None,
                f"{figure}, against a plain loop that only compares one text of each component with each rule."),
    ]  # fmt: skip
