"""What topics are called, and which statuses may follow which."""

from __future__ import annotations

from dataclasses import replace
from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from stairpath.core.review.reference import (
    NotAReferenceError,
    Reference,
    ReferenceRule,
    concerned,
    next_variant,
    typed,
    written,
)
from stairpath.core.review.rules import NotRulesError, TopicRules, Wanted, check_none_lost, renamed
from stairpath.core.review.statuses import NotAStatusError, Status, Statuses
from stairpath.core.review.topic import FIELDS, NotATopicError, TopicFields, changed, changes, merged, overdue, tidy

CODES = ("ARC", "STR", "AIR", "WTR")
rules = st.builds(ReferenceRule, st.booleans(), st.integers(1, 4), st.sampled_from(["-", "/", "+"]), st.integers(1, 6))
references = st.builds(
    Reference,
    st.lists(st.sampled_from(CODES), max_size=4, unique=True).map(tuple),
    st.integers(1, 999_999),
    st.sampled_from(["", *"bcdz"]),
)


@given(references, rules)
def test_what_is_written_is_read_again_by_number_and_variant(reference, rule):
    again = typed(written(reference, rule))
    assert (again.number, again.variant) == (reference.number, reference.variant)
    led = reference.disciplines[: rule.most_disciplines] if rule.disciplines else ()
    assert again.disciplines == led


@pytest.mark.parametrize("text", ["AIR-STR 014 b", "air str 14b", " AIR/STR 14 B ", "air+str 000014b"])
def test_it_may_be_typed_as_it_is_heard(text):
    assert typed(text) == Reference(("AIR", "STR"), 14, "b")
    assert typed("14") == typed("14 a") == Reference((), 14)


@pytest.mark.parametrize("text", ["", "b", "AIR", "duct 14 metres", "14 15", "0", "1234567"])
def test_what_is_no_reference_says_what_to_type(text):
    with pytest.raises(NotAReferenceError, match=r"type its number|numbered from 1"):
        typed(text)


def test_the_disciplines_of_most_components_lead():
    assert concerned(["STR", "AIR", "AIR", "", "a"], CODES) == ("AIR", "STR")
    assert concerned(["AIR", "STR"], CODES) == ("STR", "AIR")
    assert concerned([], CODES) == ()


def test_one_more_topic_of_a_problem_gets_the_next_letter():
    assert [next_variant(taken) for taken in ([], [""], ["", "b"], ["", "d"])] == ["", "b", "c", "e"]
    with pytest.raises(NotAReferenceError, match="number of its own"):
        next_variant(["", "z"])


@pytest.mark.parametrize("wrong", [{"digits": 0}, {"most_disciplines": 9}, {"joined_by": " to "}])
def test_a_rule_that_cannot_be_says_so(wrong):
    with pytest.raises(NotAReferenceError, match="choose"):
        ReferenceRule(**wrong)


def test_a_status_follows_another_where_it_may():
    statuses = Statuses()
    assert statuses.first == "open"
    assert statuses.followed("open", "Asked ") == "asked"
    assert statuses.followed("asked", "asked") == "asked"
    assert statuses.followed("found on site", "dropped") == "dropped"  # of a rule that there was once
    with pytest.raises(NotAStatusError, match="After settled may come open, not asked"):
        statuses.followed("settled", "asked")
    with pytest.raises(NotAStatusError, match="There is no status lost; choose open, in hand"):
        statuses.followed("open", "lost")


@pytest.mark.parametrize(
    ("those", "why"),
    [
        ((), "keep at least one"),
        ((Status("open", ()), Status("Open", ())), "same name"),
        ((Status("open", ("done",)),), "no such status"),
        ((Status("done", (), end=True),), "All statuses are ends"),
        ((Status(" open", ()),), "without space"),
    ],
)
def test_statuses_that_cannot_be_say_what_to_do(those, why):
    with pytest.raises(NotAStatusError, match=why):
        Statuses(those)


# -- what is said of a topic -----------------------------------------------------------------------

STATUSES = Statuses()
texts = st.sampled_from(["", "one", "two"])
saids = st.builds(
    TopicFields, st.sampled_from(["A", "B"]), texts, texts, st.sampled_from(["open", "asked"]), texts, texts,
    st.sampled_from([None, date(2026, 12, 4), date(2027, 1, 8)]),
    st.lists(st.sampled_from(["fire", "site", "cost"]), unique=True).map(lambda labels: tuple(sorted(labels))), texts,
)  # fmt: skip


def test_what_is_said_is_tidied_and_what_is_too_much_is_refused():
    tidied = tidy(TopicFields("  Duct  in the\nbeam ", labels=("fire", " fire ", "")), STATUSES)
    assert (tidied.title, tidied.labels, tidied.status) == ("Duct in the beam", ("fire",), "open")
    for wrong in (
        TopicFields(" "),
        TopicFields("x" * 201),
        TopicFields("x", "y" * 20_001),
        TopicFields("x", labels=tuple(map(str, range(41)))),
    ):
        with pytest.raises(NotATopicError, match=r"type|put|attach|take"):
            tidy(wrong, STATUSES)


@given(saids, saids)
def test_a_change_is_told_field_by_field(before, after):
    told = changes(before, after)
    assert replace(before, **{each.field: each.new for each in told}) == after
    assert all(each.old != each.new for each in told)
    assert changes(after, after) == []


def test_a_status_is_changed_only_where_it_may_follow():
    settled = tidy(TopicFields("x", status="settled"), STATUSES)
    with pytest.raises(NotAStatusError, match="After settled"):
        changed(settled, {"status": "asked"}, STATUSES)
    again = changed(settled, {"status": "open", "assigned_to": " Mara Oake "}, STATUSES)
    assert (again.status, again.assigned_to) == ("open", "Mara Oake")
    with pytest.raises(NotATopicError, match="has no colour"):
        changed(settled, {"colour": "red"}, STATUSES)


@given(saids, saids, saids)
def test_merging_is_the_same_in_either_order_where_nothing_contradicts(base, ours, theirs):
    one, other = merged(base, ours, theirs), merged(base, theirs, ours)
    told = {each.field for each in one.contradicted}
    assert told == {each.field for each in other.contradicted}
    for name in FIELDS:
        if name in told:
            assert getattr(one.said, name) == getattr(ours, name)
            assert next(each.new for each in one.contradicted if each.field == name) == getattr(theirs, name)
        else:
            assert getattr(one.said, name) == getattr(other.said, name)
    assert merged(base, ours, base).said == replace(ours, labels=tuple(sorted(ours.labels)))
    assert merged(base, ours, ours).contradicted == ()


def test_what_is_late_is_overdue_until_it_is_settled():
    late = TopicFields("x", status="asked", due=date(2026, 11, 20))
    today = date(2026, 11, 27)
    assert overdue(late, today, STATUSES)
    assert not overdue(replace(late, status="settled"), today, STATUSES)
    assert not overdue(replace(late, due=today), today, STATUSES)
    assert not overdue(replace(late, due=None), today, STATUSES)


def wanted_as_is(statuses: Statuses) -> list[Wanted]:
    return [Wanted(status, status.name) for status in statuses.all]


def test_a_status_that_is_called_otherwise_stays_the_same_one():
    wanted = wanted_as_is(STATUSES)
    wanted[1] = Wanted(Status("under way", ()), "in hand")
    assert renamed(STATUSES, wanted) == {"in hand": "under way"}
    check_none_lost(STATUSES, wanted, {"in hand": 3})
    with pytest.raises(NotAStatusError, match="split"):
        renamed(STATUSES, [*wanted, Wanted(Status("later", ()), "in hand")])


def test_a_status_that_topics_have_cannot_be_taken_away():
    fewer = [each for each in wanted_as_is(STATUSES) if each.was != "asked"]
    check_none_lost(STATUSES, fewer, {"open": 4})
    with pytest.raises(NotRulesError, match="2 topics are still asked; give them another"):
        check_none_lost(STATUSES, fewer, {"asked": 2})


@pytest.mark.parametrize(
    ("part", "why"),
    [
        ({"kinds": ("a", "A")}, "kind is there twice"),
        ({"priorities": ("high", " low")}, "word or a few"),
        ({"priorities": ("x" * 61,)}, "word or a few"),
        ({"kinds": tuple(map(str, range(41)))}, "At most 40"),
        ({"statuses": Statuses((Status("o" * 61, ()),))}, "at most 60 letters"),
        ({"statuses": Statuses(tuple(Status(f"s{k}", ()) for k in range(31)))}, "at most 30 statuses"),
    ],
)
def test_rules_that_cannot_be_say_what_to_do(part, why):
    with pytest.raises(NotRulesError, match=why):
        TopicRules(**part)
