"""What keeping a view over another one changes, and what a view names that the building no longer has, in sentences."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from datetime import date

import numpy as np

from stairpath.core.dates import spoken
from stairpath.core.review.eye import axes_of
from stairpath.core.review.view import View
from stairpath.core.visibility.rules import Rule
from stairpath.core.visibility.selectors import AllBut, Both, Either, Selector, These

_SAME_M, _SAME_DEG = 0.005, 0.05
_DONE: Mapping[str, str] = {
    "show": "shown", "hide": "hidden", "fade": "faded", "only": "isolated", "fade_rest": "brought out", "tint": "tinted",
}  # fmt: skip


def differences(before: View, after: View) -> list[str]:
    """How one view differs from another, the most telling first; nothing where they are alike."""
    return [*_eye(before, after), *_rules(before, after), *_counts(before, after)]


def _eye(before: View, after: View) -> Iterator[str]:
    one, other = before.eye, after.eye
    away = float(np.linalg.norm(np.subtract(other.eye_m, one.eye_m)))
    if away > _SAME_M:
        yield f"The eye moves by {away:.2f} m."
    turned = math.degrees(math.acos(min(1.0, max(-1.0, float(axes_of(one)[2] @ axes_of(other)[2])))))
    if turned > _SAME_DEG:
        yield f"The view turns by {turned:.0f}°." if turned >= 1 else f"The view turns by {turned:.1f}°."
    if one.projection != other.projection:
        yield f"The projection changes from {one.projection} to {other.projection}."
    elif other.projection == "perspective" and abs(one.angle_deg - other.angle_deg) > _SAME_DEG:
        yield f"The angle of view changes from {one.angle_deg:.0f}° to {other.angle_deg:.0f}°."
    elif other.projection == "parallel" and abs(one.height_m - other.height_m) > _SAME_M:
        yield f"The height changes from {one.height_m:.2f} m to {other.height_m:.2f} m."
    if before.limits != after.limits:
        yield "The depth of view differs."


def _rules(before: View, after: View) -> Iterator[str]:
    lost = [rule for rule in before.rules if not _among(rule, after.rules)]
    come = [rule for rule in after.rules if not _among(rule, before.rules)]
    for rules, verb in ((come, "added"), (lost, "removed")):
        for effect, done in _DONE.items():
            count = sum(rule.effect == effect for rule in rules)
            if count:
                yield f"{count} {'rule' if count == 1 else 'rules'} {verb}: {done}."
    if before.pictures != after.pictures:
        yield "The pictures in space differ."
    if before.style != after.style:
        yield "The drawing style differs."
    one, other = before.alternatives, after.alternatives
    if any(one[what] != other[what] for what in one.keys() & other.keys()):
        yield "Other alternatives are in use."
    if before.picked != after.picked:
        yield "The selection differs."


def _among(rule: Rule, rules: Sequence[Rule]) -> bool:
    return any(
        (rule.select, rule.effect, rule.colour, rule.off) == (each.select, each.effect, each.colour, each.off)
        for each in rules
    )


def _counts(before: View, after: View) -> Iterator[str]:
    for name, one, other in (
        ("cut", before.cuts, after.cuts),
        ("measure", before.measures, after.measures),
        ("markup", before.markups, after.markups),
    ):
        was, now = {each.id: each for each in one}, {each.id: each for each in other}
        parts = [
            (len(now.keys() - was.keys()), "is added", "are added"),
            (len(was.keys() - now.keys()), "is removed", "are removed"),
            (sum(now[key] != was[key] for key in now.keys() & was.keys()), "differs", "differ"),
        ]
        for count, single, several in parts:
            if count:
                yield f"1 {name} {single}." if count == 1 else f"{count} {name}s {several}."


def gone(view: View, has: Callable[[str, str], bool], issue_of: Callable[[str], date | None]) -> list[str]:
    """What a view names one by one that the building no longer has.

    ``has`` says whether a model (by its key) has a component (by its GlobalId), ``issue_of`` of when the issue of a model
    is that stands now.

    >>> from stairpath.core.review.eye import Eye
    >>> eye = Eye((0, 0, 0), (0, 1, 0), (0, 0, 1), "perspective", 60.0, 3.0)
    >>> view = View(eye, picked=These({"m": ("a", "b")}))
    >>> gone(view, lambda key, one: one == "a", lambda key: date(2026, 3, 3))
    ['1 of its 2 selected components is gone since the issue of 3 March 2026.']
    """
    named: dict[str, list[tuple[str, str]]] = {}
    for done, select in (
        *((_DONE[rule.effect], rule.select) for rule in view.rules),
        ("uncut", view.whole),
        ("selected", view.picked),
    ):
        named.setdefault(done, []).extend(_ones(select))
    said = []
    for done, ones in named.items():
        whole = list(dict.fromkeys(ones))
        lost = [(key, one) for key, one in whole if not has(key, one)]
        if not lost:
            continue
        days = [day for key in {key for key, _ in lost} if (day := issue_of(key)) is not None]
        since = f" since the issue of {spoken(max(days))}" if days else ""
        verb = "is" if len(lost) == 1 else "are"
        things = "component" if len(whole) == 1 else "components"
        said.append(f"{len(lost):,} of its {len(whole):,} {done} {things} {verb} gone{since}.")
    return said


def _ones(select: Selector) -> list[tuple[str, str]]:
    """The components that a selector names one by one, wherever in it."""
    if isinstance(select, These):
        return [(key, one) for key, ids in select.of.items() for one in ids]
    if isinstance(select, (Either, Both)):
        return [one for part in select.of for one in _ones(part)]
    return _ones(select.of) if isinstance(select, AllBut) else []
