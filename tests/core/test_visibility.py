"""Selections, rules and what becomes of them, on a made-up building of three models."""

from __future__ import annotations

import json
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from typer.testing import CliRunner

from stairpath.cli import app
from stairpath.core.review.eye import Eye
from stairpath.core.review.view import View, brought_back, changed
from stairpath.core.visibility.report import NotRulesError, rules_from
from stairpath.core.visibility.rules import (
    FADED,
    HIDDEN,
    NO_RULE,
    NO_TINT,
    NOT_STANDING,
    SHOWN,
    Rule,
    resolve,
    selected,
    simplified,
    these,
)  # fmt: skip
from stairpath.core.visibility.selectors import All, AllBut, Both, Either, NotASelectorError, Of, These, covers, parse
from stairpath.core.visibility.wording import counted, done, noun, spoken, stands
from tests.core.listed import ROWS, building
from tests.samples import Sample

EYE = Eye((0.0, -9.0, 2.0), (0.0, 0.0, 2.0), (0.0, 0.0, 1.0), "perspective", 60.0, 9.0)


B = building()


def ids(text: str) -> list[str]:
    mask = selected(B, parse(text))
    return [f"{B.model_of(k)}/{B.global_id(k)}" for k in np.flatnonzero(mask).tolist()]


@pytest.mark.parametrize(
    ("text", "wanted"),
    [
        ("B1", ["air/B1"]),
        ("A0", ["arc/A0", "air/A0"]),
        ("a0", []),
        ("discipline:AIR", ["air/B0", "air/B1", "air/A0"]),
        ("discipline: air ", ["air/B0", "air/B1", "air/A0"]),
        ("level:01", ["arc/A1", "arc/A2", "arc/A3", "air/B1"]),
        ("LEVEL:level 01", ["arc/A1", "arc/A2", "arc/A3", "air/B1"]),
        ("level:none", ["air/A0"]),
        ("class:IfcWall", ["arc/A0", "arc/A1"]),
        ("class:IfcWallStandardCase", ["arc/A0"]),
        ("class:duct segment", ["air/B0", "air/B1"]),
        ("class:Duct", ["air/B0", "air/B1"]),
        ("class:covering+level:01", ["arc/A2", "arc/A3"]),
        ("type:C*", ["arc/A2", "arc/A3", "arc/A4"]),
        ("system:Extract 2", ["air/B1"]),
        ("system:supply*", ["air/B0", "air/B1"]),
        ("material:Brick,material:concrete", ["arc/A0", "arc/A1"]),
        ("room:1.04", ["arc/A1", "arc/A2", "air/B1"]),
        ("room:Wet lab+!class:IfcCovering", ["arc/A1", "air/B1"]),
        ("model:QH-ALT", ["alt/D0"]),
        ("tag:AD-1,tag:AD-2", ["air/B0", "air/B1"]),
        ('name:"Big, loud + near"', ["air/A0"]),
        ("!discipline:ARC+!level:00", ["air/B1", "air/A0"]),
        ("!!tag:AD-1", ["air/B0"]),
        ("level:77", []),
        ("tag:AD-[12]", []),
    ],
)
def test_a_selection_as_it_is_typed(text, wanted):
    assert ids(text) == wanted


def test_all_and_nothing():
    assert selected(B, parse("all")).all()
    assert not selected(B, parse("!all")).any()
    assert not selected(B, Both(())).any()
    assert not selected(B, Either(())).any()
    assert not selected(B, These({"arc": ("gone",), "none": ("A0",)})).any()


@pytest.mark.parametrize(
    ("text", "words_"),
    [
        ("", "ends before it selects something"),
        ("level:01+", "ends before"),
        (",level:01", "has a , where a selection belongs"),
        ("colour:red", "selects nothing; write all, a GlobalId"),
        ("level:", "selects nothing"),
        ('name:"half', "a quote that is not closed"),
        ("!", "ends before"),
        ('level:01 "x" !y', "has a ! where"),
    ],
)
def test_what_is_no_selection_is_said(text, words_):
    with pytest.raises(NotASelectorError, match=words_):
        parse(text)


def states(rules, of=B):
    return resolve(of, rules).state.tolist()


def test_later_rules_count_over_earlier_ones_and_each_component_knows_which_decided():
    rules = [
        Rule(parse("level:01"), "hide"),
        Rule(parse("discipline:AIR"), "fade"),
        Rule(parse("tag:C-1"), "show"),
        Rule(parse("class:IfcWall"), "tint", "#3f83c2"),
    ]
    found = resolve(B, rules)
    assert found.state.tolist() == [SHOWN, HIDDEN, SHOWN, HIDDEN, SHOWN, FADED, FADED, FADED, HIDDEN]
    assert found.rule.tolist() == [NO_RULE, 0, 2, 0, NO_RULE, 1, 1, 1, NOT_STANDING]
    assert found.tint.tolist()[:3] == [0x3F83C2, 0x3F83C2, NO_TINT]
    assert found.reason().tolist()[:3] == [3, 0, 2]
    assert found.counts() == {"hidden": 3, "faded": 3, "shown": 3}


def test_a_rule_that_is_off_waits():
    rules = [Rule(All(), "hide", off=True), Rule(parse("level:00"), "show")]
    assert set(states(rules)[:8]) == {SHOWN}
    assert simplified(rules) == tuple(rules)
    assert states([replace(rules[0], off=False), rules[1]])[:2] == [SHOWN, HIDDEN]


def test_isolating_shows_exactly_the_selection_whatever_was_hidden():
    found = resolve(B, [Rule(All(), "hide"), Rule(parse("level:00"), "only")])
    assert [k for k, s in enumerate(found.state) if s == SHOWN] == [0, 5]
    assert (found.rule[:8] == 1).all()


def test_fading_the_rest_brings_nothing_back_that_is_hidden():
    found = resolve(B, [Rule(parse("level:01"), "hide"), Rule(parse("tag:W-2"), "fade_rest")])
    assert found.state.tolist() == [FADED, SHOWN, HIDDEN, HIDDEN, FADED, FADED, HIDDEN, FADED, HIDDEN]
    assert found.rule.tolist()[:4] == [1, 1, 0, 0]


def test_an_alternative_that_does_not_stand_is_not_shown_by_any_rule():
    found = resolve(B, [Rule(All(), "show"), Rule(All(), "tint", "#ff0000")])
    assert (found.state[8], found.rule[8], found.tint[8]) == (HIDDEN, NOT_STANDING, NO_TINT)
    assert resolve(building(standing="arc air alt"), []).state[8] == SHOWN


parts = st.sampled_from(
    [
        All(), Of("level", "01"), Of("level", "Roof"), Of("discipline", "AIR"), Of("class", "IfcCovering"),
        Of("type", "C1"), Of("system", "Supply 1"), Of("room", "1.04"), Of("level", "gone"),
        These({"arc": ("A0", "A2")}), These({"arc": ("A0",)}), These({"air": ("A0", "B1", "gone")}), Either(()), Both(()),
    ]
)  # fmt: skip
selectors = st.recursive(
    parts,
    lambda of: st.one_of(
        of.map(AllBut),
        st.lists(of, min_size=1, max_size=3).map(lambda p: Both(tuple(p))),
        st.lists(of, min_size=1, max_size=3).map(lambda p: Either(tuple(p))),
    ),
    max_leaves=4,
)
effects = st.sampled_from(["show", "fade", "hide", "only", "fade_rest"])
rules_ = st.lists(
    st.one_of(
        st.builds(Rule, selectors, effects, off=st.booleans()),
        st.builds(Rule, selectors, st.just("tint"), st.sampled_from(["#3f83c2", "#16907f", None])),
    ),
    max_size=7,
)


def same(a, b) -> bool:
    return bool((a.state == b.state).all() and (a.tint == b.tint).all())


@given(rules_)
def test_rules_that_are_left_out_change_nothing(rules):
    assert same(resolve(B, rules), resolve(B, simplified(rules)))


@given(selectors, selectors)
def test_what_covers_selects_no_less(wide, narrow):
    if covers(wide, narrow):
        assert not (selected(B, narrow) & ~selected(B, wide)).any()


@given(rules_, selectors, st.sampled_from(["hide", "fade", "only"]))
def test_what_was_hidden_and_is_brought_back_is_as_before(rules, selector, effect):
    before = View(EYE, rules=simplified(rules))
    after = changed(before, Rule(selector, effect))
    # The rule is taken out again, or undone where it left nothing of others.
    if len(after.rules) == len(before.rules) + 1:
        assert same(resolve(B, brought_back(after, len(after.rules) - 1).rules), resolve(B, before.rules))
    hidden = changed(View(EYE), Rule(selector, effect))
    assert changed(hidden, Rule(All(), "show")).rules == ()


@given(rules_, selectors)
def test_isolating_always_shows_exactly_the_selection(rules, selector):
    found = resolve(B, [*rules, Rule(selector, "only")])
    assert ((found.state == SHOWN) == (selected(B, selector) & B.stands)).all()


@given(rules_)
def test_everything_that_is_not_plainly_shown_has_a_reason(rules):
    found = resolve(B, rules)
    plain = (found.state == SHOWN) & (found.tint == NO_TINT)
    assert (plain | (found.reason() != NO_RULE)).all()


@given(
    st.permutations([0, 1, 2]),
    st.lists(effects.filter(lambda e: e not in ("only", "fade_rest")), min_size=3, max_size=3),
)
def test_the_order_of_rules_about_different_components_does_not_matter(order, what):
    apart = [Of("level", "00"), Of("level", "01"), Of("level", "Roof")]
    rules = [Rule(s, e) for s, e in zip(apart, what, strict=True)]
    assert states(rules) == states([rules[k] for k in order])


@given(rules_, st.permutations(["arc", "air", "alt"]))
def test_a_view_means_the_same_components_after_any_other_model_was_read_anew(rules, order):
    """Models in another order, one of them with a component less and two more: dense numbers are all others."""
    newer = {**ROWS, "air": [*ROWS["air"][:1], {"id": "N", "class": "IfcFan", "at": "2 AIR -1"}, *ROWS["air"][1:]]}
    other = building(tuple(order), newer)
    first, second = resolve(B, rules), resolve(other, rules)
    for key, rows in ROWS.items():
        mine, theirs = (t.numbers_of(key, [r["id"] for r in rows]) for t in (B, other))
        assert first.state[mine].tolist() == second.state[theirs].tolist()
        assert first.tint[mine].tolist() == second.tint[theirs].tolist()


def test_components_are_named_one_by_one_for_good():
    found = these(B, selected(B, parse("level:01,discipline:AIR")))
    assert found.of == {"arc": ("A1", "A2", "A3"), "air": ("B0", "B1", "A0")}
    assert (selected(B, found) == selected(B, parse("level:01,discipline:AIR"))).all()


@pytest.mark.parametrize(
    ("text", "effect", "said"),
    [
        ("all", "show", "showed everything"),
        ("discipline:AIR+level:01", "hide", "hid Air on Level 01"),
        ("level:roof", "fade", "faded level Roof"),
        ("class:IfcCovering", "hide", "hid every covering"),
        ("class:IfcCovering", "fade_rest", "faded all but every covering"),
        ("!discipline:AIR", "fade", "faded all but Air"),
        ("room:1.04", "only", "isolated room 1.04 Wet lab"),
        ("A1", "hide", "hid W-2"),
        ("system:Supply 1", "hide", "hid system Supply 1"),
    ],
)
def test_a_change_has_a_name(text, effect, said):
    assert done(B, Rule(parse(text), effect)) == said


def test_components_are_spoken_of_by_name_or_number_and_class():
    assert spoken(B, These({"arc": ("A2",)})) == "C-1"
    assert spoken(B, These({"arc": ("A2", "A3", "A4")})) == "3 coverings"
    assert spoken(B, These({"arc": ("A2", "A3", "A1")})) == "3 components"
    assert spoken(B, These({"arc": ("gone",)})) == "nothing in the building"
    assert stands(B, Rule(parse("type:C1"), "fade")) == "Faded: type C1"
    assert [noun("IfcDuctSegment"), counted(1, "wall"), counted(3, "assembly")] == [
        "duct",
        "1 wall",
        "3 assemblies",
    ]
    assert done(B, replace(Rule(All(), "tint"), colour=None)) == "removed the tint of everything"


@pytest.mark.parametrize(
    ("document", "said"),
    [
        ({"select": "all"}, "The rules are no list"),
        (["all"], "Rule 0 is no object"),
        ([{"select": "all"}], "Rule 0: nothing is not an effect; give one of show, fade"),
        ([{"select": "all", "effect": "tint"}], "Rule 0 tints without a colour"),
        ([{"select": "all", "effect": "tint", "colour": "red"}], "Rule 0: red is not a colour"),
        ([{"select": "all", "effect": "tint", "colour": "#12 456"}], "#12 456 is not a colour"),
        ([{"select": 7, "effect": "hide"}], "Rule 0: its select is no text"),
        ([{"select": "level:", "effect": "hide"}], "Rule 0: level: selects nothing"),
    ],
)
def test_rules_that_are_none_are_refused_in_a_sentence(document, said):
    with pytest.raises(NotRulesError, match=said):
        rules_from(document)


def test_the_command_resolves_rules_without_a_server(tmp_path):
    sample = Sample()
    storey = sample.storey("Level 00", 0.0)
    wall = sample.box(storey, (0, 0, 0), (4, 0.2, 3), Name="Wall", Tag="W-1")
    slab = sample.box(storey, (0, 0, -0.3), (4, 4, 0.3), "IfcSlab", Name="Slab", Tag="F-1")
    model, rules = tmp_path / "House-ARC.ifc", tmp_path / "rules.json"
    model.write_bytes(sample.content())
    rules.write_text(json.dumps([{"select": "class:IfcWall", "effect": "hide", "why": "to look in"},
                                 {"select": "tag:F-1", "effect": "tint", "colour": "#3f83c2"},
                                 {"select": "level:77", "effect": "fade"}]))  # fmt: skip
    result = CliRunner().invoke(app, ["resolve", str(model), "--rules", str(rules), "--json"])
    assert result.exit_code == 0, result.output
    found = json.loads(result.stdout)
    assert found["counts"] == {"hidden": 1, "faded": 0, "shown": 1}
    by_id = {c["global_id"]: c for c in found["components"]}
    assert by_id[wall.GlobalId] == {"global_id": wall.GlobalId, "model": "House-ARC", "state": "hidden", "tint": None,
                                    "rule": 0, "stands": True}  # fmt: skip
    assert (by_id[slab.GlobalId]["tint"], by_id[slab.GlobalId]["rule"]) == ("#3f83c2", 1)
    assert [p["rule"] for p in found["problems"]] == [2]
    rules.write_text("[")
    result = CliRunner().invoke(app, ["resolve", str(model), "--rules", str(rules), "--json"])
    assert (result.exit_code, result.stdout) == (2, "")
    assert "is not JSON; write a list of rules." in result.stderr
