"""What is asked of lists in the standard's words."""

import contextlib

import pytest
from hypothesis import given
from hypothesis import strategies as st

from stairpath.core.exchange.filters import NotAFilterError, filtered, ordered

FIELDS = ("title", "due", "labels", "index")
RECORD = {"title": "Duct 'n' beam", "due": "2026-12-01T00:00:00Z", "labels": ["fire"], "index": 14}


@pytest.mark.parametrize(
    ("text", "meant"),
    [
        ("title eq 'Duct ''n'' beam'", True),
        ("title ne 'x' and index ge 14", True),
        ("index gt 14 or index lt 14", False),
        ("index le 14", True),
        ("due ge 2026-12-01", True),
        ("due gt 2026-12-01T00:00:00Z", False),
        ("labels eq 'fire' and labels ne 'water'", True),
        ("contains(title, 'BEAM')", True),
        ("contains(labels, 'fi')", False),
        ("not (title eq null)", True),
        ("not contains(title,'x') and (index eq 1 or index eq 14)", True),
        ("title gt 3", False),
    ],
)
def test_a_filter_means_what_it_says(text, meant):
    assert filtered(text, FIELDS)(RECORD) is meant


@given(st.text(max_size=60))
def test_whatever_is_typed_is_a_filter_or_says_why_not(text):
    with contextlib.suppress(NotAFilterError):
        assert filtered(text, FIELDS)(RECORD) in (True, False)


def test_brackets_without_end_and_texts_without_end_are_refused():
    for text in ("(" * 200, "not " * 200 + "index eq 1", "x" * 3000, "title eq"):
        with pytest.raises(NotAFilterError):
            filtered(text, FIELDS)


def test_order_is_by_several_fields_with_none_last():
    records = [{"title": "b", "due": ""}, {"title": "a", "due": "2"}, {"title": "c", "due": "2"}]
    assert [r["title"] for r in ordered(records, "due desc, title desc", FIELDS)] == ["c", "a", "b"]
    with pytest.raises(NotAFilterError, match="orders nothing"):
        ordered(records, "colour", FIELDS)
