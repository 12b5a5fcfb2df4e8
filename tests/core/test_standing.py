"""The standing views of a building, and what is said of views that differ or name what is gone."""

from __future__ import annotations

from dataclasses import replace
from datetime import date

import pytest

from stairpath.core.cutting.cuts import Cut, PlaneCut
from stairpath.core.federation.federate import federate
from stairpath.core.federation.outline import outline
from stairpath.core.reading.read import read_model
from stairpath.core.review.differences import differences, gone
from stairpath.core.review.eye import Eye
from stairpath.core.review.markups import placed
from stairpath.core.review.standing import standing_views
from stairpath.core.review.view import Limits, View
from stairpath.core.visibility.rules import Rule
from stairpath.core.visibility.selectors import All, AllBut, Both, Of, These
from tests.api.conftest import two_rooms
from tests.samples import Sample

EYE = Eye((0.0, 0.0, 1.6), (0.0, 5.0, 1.6), (0.0, 0.0, 1.0), "perspective", 60.0, 3.0)
VIEW = View(EYE)


def building(*samples: Sample):
    return federate([outline(read_model(f"T{k}-ARC.ifc", each.content())) for k, each in enumerate(samples)])


def test_each_level_each_room_and_each_side_has_its_view():
    views = standing_views(building(two_rooms()))
    assert [each.name for each in views] == [
        "Level 00", "Level 00 without architecture", "Level 01", "Level 01 without architecture",
        "0.01 West", "0.02 East", "Side: front", "Side: right", "Side: back", "Side: left",
    ]  # fmt: skip
    by_name = {each.name: each.view for each in views}
    assert by_name["Level 00"].cuts
    assert not by_name["Level 01"].cuts
    assert [rule.effect for rule in by_name["Level 00 without architecture"].rules] == ["only", "hide"]
    west = by_name["0.01 West"].eye
    assert 0 < west.eye_m[0] < 4
    assert 0 < west.eye_m[1] < 3
    assert west.eye_m[2] == pytest.approx(1.6, abs=0.05)


def test_standing_views_of_the_same_building_are_the_same_ones():
    sample = two_rooms()
    assert standing_views(building(sample)) == standing_views(building(sample))
    keys = [each.key for each in standing_views(building(sample))]
    assert len(set(keys)) == len(keys)


def test_a_building_without_anything_has_none():
    assert standing_views(building()) == []


@pytest.mark.parametrize(
    ("after", "says"),
    [
        (VIEW, []),
        (replace(VIEW, eye=replace(EYE, eye_m=(3.0, 4.0, 1.6), target_m=(3.0, 9.0, 1.6))), ["moves by 5.00 m"]),
        (replace(VIEW, eye=replace(EYE, target_m=(5.0, 0.0, 1.6))), ["turns by 90°"]),
        (replace(VIEW, eye=replace(EYE, angle_deg=45.0)), ["from 60° to 45°"]),
        (replace(VIEW, eye=replace(EYE, projection="parallel")), ["from perspective to parallel"]),
        (replace(VIEW, limits=Limits(0.5)), ["depth of view differs"]),
        (replace(VIEW, rules=(Rule(All(), "hide"),)), ["1 rule added: hidden"]),
        (replace(VIEW, rules=(Rule(All(), "hide"), Rule(Of("tag", "a"), "hide"))), ["2 rules added"]),
        (replace(VIEW, cuts=(Cut("a", PlaneCut((0, 0, 0), (0, 0, 1))),)), ["1 cut is added"]),
        (replace(VIEW, markups=(placed("t", "text", [(0, 0)], (0, 5, 1), EYE, 1.0, text="x"),)), ["1 markup is added"]),
        (replace(VIEW, style="lines", picked=These({"m": ("a",)})), ["drawing style differs", "selection differs"]),
    ],
)
def test_what_keeping_over_a_view_changes_is_said(after, says):
    told = differences(VIEW, after)
    assert len(told) == len(says)
    for sentence, part in zip(told, says, strict=True):
        assert part in sentence
    assert len(differences(after, VIEW)) == len(says)


def test_a_cut_that_moved_is_other_and_one_that_left_goes():
    cut = Cut("a", PlaneCut((0, 0, 0), (0, 0, 1)))
    before = replace(VIEW, cuts=(cut, Cut("b", cut.shape)))
    after = replace(VIEW, cuts=(replace(cut, off=True),))
    assert differences(before, after) == ["1 cut is removed.", "1 cut differs."]


def test_what_is_gone_is_said_with_the_day_of_the_issue():
    hidden = Rule(Both((Of("level", "x"), AllBut(These({"m": ("a", "b"), "n": ("c",)})))), "hide")
    view = replace(VIEW, rules=(hidden, Rule(Of("tag", "z"), "hide")), picked=These({"m": ("a",)}))
    days = {"m": date(2026, 3, 3), "n": date(2026, 2, 1)}
    has = {("m", "a")}
    assert gone(view, lambda key, one: (key, one) in has, days.get) == [
        "2 of its 3 hidden components are gone since the issue of 3 March 2026."
    ]
    assert gone(view, lambda key, one: True, days.get) == []
    assert gone(view, lambda key, one: False, lambda key: None)[1] == "1 of its 1 selected component is gone."
