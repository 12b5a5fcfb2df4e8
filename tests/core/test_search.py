"""What is found by a few letters, and in which order."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from stairpath.core.register.search import Field, Index
from tests.core.listed import building, facts

FACTS = facts(
    {
        "arc/A0": {
            "description": "Wall of the pump room",
            "properties": {"Pset_WallCommon": {"FireRating": "EI60"}},
        },
        "air/B0": {"description": "Supply air duct, rectangular"},
    }
)
B = building(told=FACTS)
INDEX = Index(B)


def found(typed: str) -> list[str]:
    count, hits = INDEX.search(typed)
    assert count == len(hits)
    return [f"{B.model_of(hit.component)}/{B.global_id(hit.component)}" for hit in hits]


@pytest.mark.parametrize(
    ("typed", "wanted"),
    [
        ("AD-1", ["air/B0"]),
        ("ad-", ["air/B0", "air/B1"]),
        ("  ad-2 ", ["air/B1"]),
        ("W-1", ["arc/A0"]),
        ("big, loud", ["air/A0"]),
        ("fan", ["air/A0"]),
        ("pump", ["arc/A0", "air/B0"]),
        ("ei60", ["arc/A0"]),
        ("B0", []),
        ("brick", ["arc/A0"]),
        ("supply", ["air/B0", "air/B1"]),
        ("extract", ["air/B1"]),
        ("suply", ["air/B0", "air/B1"]),
        ("concrte", ["arc/A1"]),
        ("brick pump", ["arc/A0"]),
        ("brick duct", []),
        ("suply extract", ["air/B1"]),
        ("fan air", ["air/A0"]),
        ("brick pump room", ["arc/A0"]),
        ("AD level 01", ["air/B1", "air/B0"]),
        ("", []),
        ("   ", []),
        ("zzzz", []),
        ("x", []),
        (".*", []),
    ],
)
def test_what_is_found_by_a_few_letters(typed, wanted):
    assert found(typed) == wanted


def test_a_tag_itself_comes_before_what_begins_with_it_and_what_holds_it():
    rows = {"arc": [{"id": tag, "class": "IfcPipe", "tag": tag, "at": "0 ARC 0"} for tag in ("XP-10", "P-100", "P-10")]}
    index = Index(building(("arc",), rows))
    assert [hit.text for hit in index.search("p-10")[1]] == ["P-10", "P-100", "XP-10"]


def test_one_wrong_letter_in_a_tag_is_forgiven():
    tags = [f"SW-{n}" for n in range(900, 960)] + ["AD-199", "AD-189"]
    rows = {"arc": [{"id": tag, "class": "IfcPipe", "tag": tag, "at": "0 ARC 0"} for tag in tags]}
    index = Index(building(("arc",), rows))
    assert index.search("AD-l99")[1][0].text == "AD-199"
    assert index.search("A-199")[1][0].text == "AD-199"
    assert index.search("AD-1999")[1][0].text == "AD-199"


def test_only_the_likeliest_are_told_and_all_are_counted():
    rows = {"arc": [{"id": str(k), "class": "IfcPipe", "tag": f"P-{k}", "at": "0 ARC 0"} for k in range(300)]}
    count, hits = Index(building(("arc",), rows)).search("p-", 20)
    assert (count, len(hits)) == (300, 20)


texts = st.lists(st.text("ab- 1", max_size=6), min_size=1, max_size=8)


@given(texts, st.text("ab- 1", min_size=1, max_size=3))
def test_a_text_scores_exactly_where_it_holds_what_was_typed(given_texts, typed):
    wanted = typed.strip()
    if not wanted:
        return
    rows = np.arange(len(given_texts), dtype=np.int32)
    scores = Field("name", 1.0, given_texts, rows, rows).scores(wanted)
    for text, score in zip(given_texts, scores.tolist(), strict=True):
        plain = text.strip()
        holds = plain.startswith(wanted) if len(wanted) < 2 else wanted in plain
        assert (score > 0) == holds
        assert (score == 1.0) == (plain == wanted)


def test_a_global_id_is_found_by_its_beginning_and_not_by_two_letters_of_it():
    ids = ["2O2Fr$t4X7Zf8NOew3FLOH", "0Qz7uNqQrBRu9nYpk4Yo3L"]
    rows = {"arc": [{"id": gid, "class": "IfcPipe", "tag": f"P-{k}", "at": "0 ARC 0"} for k, gid in enumerate(ids)]}
    index = Index(building(("arc",), rows))
    assert [hit.text for hit in index.search("0qz7unqq")[1]] == [ids[1]]
    assert index.search("7u")[0] == 0
