"""Meetings and their minutes: agenda, open points by person, the document, and what cannot be."""

from __future__ import annotations

import base64
import contextlib
import json
import re
import zlib
from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st
from typer.testing import CliRunner

from stairpath.cli import app
from stairpath.core.exchange.printed import html, minutes_from, pdf
from stairpath.core.review.meeting import Known, NotAMeetingError, Point, agenda, by_person
from tests.exchanged import PNG, png

SAID = {
    "project": "Quillhaven", "title": "Coordination meeting 14", "date": "2026-11-27", "by": "Mara Oake",
    "present": ["Mara Oake", "Łukasz Żółw"], "absent": ["Tam Kerr"], "from": "09:30", "to": "11:00",
    "next": "2026-12-04", "next_time": "10:00", "not_dealt_with": [{"reference": "ARC 009", "title": "Stair <rail>"}],
    "topics": [
        {
            "reference": "AIR-STR 014 b", "title": "Duct <b>AD-114</b> in beam B-12", "status": "in hand",
            "where": "Level 01", "link": "http://127.0.0.1:8000/p/a",
            "picture": "data:image/png;base64," + base64.b64encode(png(600, 400, "grey")).decode(),
            "notes": [
                {"text": "It can go lower."},
                {"text": "Lower it by 40 mm.", "decision": True, "who": "Tam Kerr", "until": "2026-12-04"},
            ],
        },
        {"reference": "WTR 003", "title": "Pipe over the stair", "notes": [{"text": "Ask.", "until": "2026-12-01"}]},
    ],
}  # fmt: skip


def test_the_agenda_begins_with_what_was_left_open_then_overdue_new_and_chosen():
    topics = [
        Known("settled", ended=True, overdue=False, new=True),
        Known("new", ended=False, overdue=False, new=True),
        Known("late and left", ended=False, overdue=True, new=False),
        Known("late", ended=False, overdue=True, new=True),
        Known("quiet", ended=False, overdue=False, new=False),
    ]
    found = agenda(topics, {"late and left", "settled"}, chosen=["quiet", "settled", "late", "gone"])
    assert [(each.id, each.why) for each in found] == [
        ("late and left", "left open"), ("late", "overdue"), ("new", "new"), ("quiet", "chosen"), ("settled", "chosen"),
    ]  # fmt: skip


@given(st.lists(st.builds(Known, st.uuids().map(str), st.booleans(), st.booleans(), st.booleans())), st.data())
def test_an_agenda_has_each_topic_once_and_none_that_is_not_there(topics, data):
    ids = [topic.id for topic in topics]
    left = set(data.draw(st.lists(st.sampled_from(ids)))) if ids else set()
    found = [each.id for each in agenda(topics, left, ids[:2])]
    assert len(found) == len(set(found))
    assert set(found) <= set(ids)


def test_open_points_stand_by_person_and_by_when():
    late, soon, nobody = (
        Point("a", who="Tam", until=date(2026, 12, 9)),
        Point("b", who="Tam", until=date(2026, 12, 1)),
        Point("c", until=date(2026, 1, 1)),
    )
    found = by_person([("2", late), ("1", soon), ("3", nobody), ("4", Point("only said"))])
    assert [(who, [ref for ref, _ in points]) for who, points in found] == [("Tam", ["1", "2"]), ("", ["3"])]


def test_minutes_are_a_page_that_needs_nothing_else_and_runs_nothing(tmp_path):
    page = html(minutes_from(SAID, tmp_path))
    assert "Duct &lt;b&gt;AD-114&lt;/b&gt; in beam B-12" in page
    assert page.count("Lower it by 40 mm.") == 2
    assert "<script" not in page
    assert 'src="data:image/jpeg' in page
    assert "http://127.0.0.1:8000/p/a" in page
    assert "size: letter" in html(minutes_from(SAID, tmp_path), "Letter")


def unpacked(data: bytes) -> bytes:
    """What the packed parts of a PDF hold."""
    parts = re.findall(rb"stream\r?\n(.*?)\r?\nendstream", data, re.S)
    out = [data]
    for part in parts:
        with contextlib.suppress(zlib.error):
            out.append(zlib.decompress(part))
    return b"\n".join(out)


@pytest.mark.parametrize(("paper", "size"), [("A4", "595."), ("letter", "612 792")])
def test_the_command_writes_a_pdf_on_the_paper_that_is_wanted(tmp_path, paper, size):
    file, out = tmp_path / "m.json", tmp_path / "m.pdf"
    (tmp_path / "beside.png").write_bytes(PNG)
    said = {**SAID, "topics": [*SAID["topics"], {"title": "From a file", "picture": "beside.png"}]}
    file.write_text(json.dumps(said), encoding="utf-8")
    done = CliRunner().invoke(app, ["minutes", str(file), "--pdf", str(out), "--paper", paper, "--json"])
    assert done.exit_code == 0, done.stderr
    assert json.loads(done.stdout) == {
        "title": "Coordination meeting 14", "topics": 3, "notes": 3, "paper": "A4" if paper == "A4" else "Letter",
    }  # fmt: skip
    plain = unpacked(out.read_bytes())
    assert f"/MediaBox [0 0 {size}".encode() in plain
    # Its own typefaces are in it, and the way back into the project.
    assert b"Barlow" in plain
    assert b"http://127.0.0.1:8000/p/a" in plain


def test_minutes_say_who_was_absent_the_hours_what_is_left_and_when_the_next_meeting_is(tmp_path):
    page = " ".join(re.sub(r"<[^>]+>", " ", html(minutes_from(SAID, tmp_path))).split())
    for words in (
        "27 November 2026, from 09:30 to 11:00, minutes by Mara Oake",
        "Absent Tam Kerr",
        "Not dealt with ARC 009 Stair &lt;rail&gt;",
        "Next meeting 4 December 2026, 10:00",
    ):
        assert words in page
    plain = html(minutes_from({**SAID, "absent": [], "next": "", "not_dealt_with": [], "from": "", "to": ""}, tmp_path))
    assert not [words for words in ("Absent", "Not dealt with", "Next meeting", "from ") if f">{words}" in plain]


def test_pictures_that_are_none_and_addresses_of_elsewhere_are_left_out(tmp_path):
    said = {
        **SAID,
        "topics": [{"title": "x", "picture": "data:image/png;base64," + base64.b64encode(b"<svg/>").decode()}],
    }
    held = minutes_from(said, tmp_path)
    assert "<img" not in html(held)
    assert pdf(held).startswith(b"%PDF")


@pytest.mark.parametrize(
    ("said", "says"),
    [
        ([], "The document is"),
        ({"title": "x"}, "need a title and a date"),
        ({"title": "x", "date": "next week"}, "which is no date"),
        ({**SAID, "topics": {}}, ""),
        ({**SAID, "topics": "all"}, "topics is no list"),
        ({**SAID, "topics": [{"title": " "}]}, "needs a title"),
        ({**SAID, "topics": [{"title": "x", "notes": [{"text": " "}]}]}, "nothing in the note"),
        ({**SAID, "topics": [{"title": "x", "picture": "../gone.png"}]}, "is not there"),
        ({**SAID, "topics": [{"title": 7}]}, "not a text"),
        ({**SAID, "from": "half past"}, "which is no time; write one such as 09:30"),
        ({**SAID, "not_dealt_with": ["ARC 009"]}, "not a record"),
    ],
)
def test_what_cannot_be_is_said_in_one_sentence(tmp_path, said, says):
    if not says:
        assert minutes_from(said, tmp_path).items == ()
        return
    with pytest.raises(NotAMeetingError, match=says):
        minutes_from(said, tmp_path)
    (tmp_path / "m.json").write_text(json.dumps(said))
    done = CliRunner().invoke(app, ["minutes", str(tmp_path / "m.json"), "--pdf", str(tmp_path / "m.pdf")])
    assert (done.exit_code, done.stderr.count("\n")) == (2, 1)
    assert not (tmp_path / "m.pdf").exists()


def test_the_command_wants_a_paper_and_a_place(tmp_path):
    for more, says in ((["--pdf", "x.pdf", "--paper", "A9"], "no paper A9"), ([], "give --pdf or --html")):
        done = CliRunner().invoke(app, ["minutes", str(tmp_path / "m.json"), *more])
        assert done.exit_code == 2
        assert says in done.stderr
