"""Topics in the open format: written and read again, valid by the standard, and whatever strangers send."""

from __future__ import annotations

import dataclasses
import io
import json
import zipfile
from datetime import UTC, datetime
from pathlib import Path

import pytest
from hypothesis import given, settings
from typer.testing import CliRunner

from stairpath.cli import app
from stairpath.core.exchange.bcf import VERSIONS, opened, writing
from stairpath.core.exchange.origin import Sight, shift_between
from stairpath.core.exchange.topic import (
    Camera,
    CannotExchangeError,
    Colouring,
    Comment,
    Component,
    Document,
    Plane,
    Topic,
    Viewpoint,
)  # fmt: skip
from tests.exchanged import PNG, check_valid, some_guid, topics

WHEN = datetime(2026, 3, 3, 9, 30, tzinfo=UTC)
DUCT, BEAM = "0aaaaaaaaaaaaaaaaaaaa1", "0aaaaaaaaaaaaaaaaaaaa2"
VIEW = Viewpoint(
    guid=some_guid(7),
    camera=Camera((12.0, -3.5, 4.25), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0), "perspective", angle_deg=50.0, aspect=1.6),
    default_visible=False,
    exceptions=(Component(DUCT), Component(BEAM)),
    selected=(Component(DUCT),),
    colours=(Colouring("#d98032", (Component(BEAM),)),),
    planes=(Plane((0.0, 0.0, 5.0), (0.0, 0.0, 1.0)),),
    lines=(((0.0, 0.0, 0.0), (1.0, 0.0, 0.0)),),
    snapshot=PNG,
)
TOPIC = Topic(
    some_guid(1), "Duct in the beam", "Ida Fenn", WHEN, "AD-114 runs through B-12.", "overlap", "open", "high",
    "Tam Kerr", "design", WHEN, ("air", "structure"), 14, "AIR-STR 014 b", related=(some_guid(2),),
    comments=(Comment(some_guid(3), "Tam Kerr", WHEN, "We drop it by 40 mm.", VIEW.guid),), viewpoints=(VIEW,),
    documents=(Document(some_guid(4), "note.pdf", "the note", b"%PDF"),),
)  # fmt: skip


def wrote(version, *these):
    out = io.BytesIO()
    with writing(out, version, "Quillhaven", "qh-1") as into:
        for topic in these:
            into.put(topic)
    return out.getvalue(), into.problems


def read(path):
    with opened(path) as held:
        return list(held.topics()), held


def at(tmp_path, data, name="a.bcf"):
    path = tmp_path / name
    path.write_bytes(data)
    return path


def as_kept(topic, version):
    """A topic as a version can hold it."""
    views = [
        dataclasses.replace(v, camera=dataclasses.replace(v.camera, aspect=None)) if v.camera else v
        for v in topic.viewpoints
    ]
    topic = dataclasses.replace(topic, viewpoints=tuple(views))
    return topic if version == "3.0" else dataclasses.replace(topic, reference="")


@pytest.mark.parametrize("version", VERSIONS)
@settings(max_examples=60, deadline=None)
@given(topic=topics())
def test_what_is_written_is_valid_and_is_read_as_the_same(topic, version, tmp_path_factory):
    data, _ = wrote(version, topic)
    check_valid(data, version)
    (back,), held = read(at(tmp_path_factory.mktemp("bcf"), data))
    assert held.problems == []
    assert as_kept(back, version) == as_kept(topic, version)
    again, _ = wrote(version, back)
    assert read(at(tmp_path_factory.mktemp("bcf"), again))[0] == [back]


def test_a_topic_goes_from_the_newer_version_to_the_older_and_back(tmp_path):
    newer = at(tmp_path, wrote("3.0", TOPIC)[0])
    for version, name in (("2.1", "older.bcf"), ("3.0", "back.bcf")):
        done = CliRunner().invoke(app, ["topics", "convert", str(newer), str(tmp_path / name), "--version", version])
        assert done.exit_code == 0, done.stderr
        newer = tmp_path / name
        check_valid(newer.read_bytes(), version)
    (back,), held = read(newer)
    assert (held.version, held.project_name, held.project_id) == ("3.0", "Quillhaven", "qh-1")
    # The reference has no place in the older version; the aspect is that of the picture then.
    assert dataclasses.replace(back, reference=TOPIC.reference).viewpoints[0].camera.aspect == pytest.approx(8 / 6)
    assert as_kept(dataclasses.replace(back, reference=""), "2.1") == as_kept(TOPIC, "2.1")


def test_the_command_says_what_a_file_holds(tmp_path):
    done = CliRunner().invoke(app, ["topics", "read", str(at(tmp_path, wrote("3.0", TOPIC)[0])), "--json"])
    assert done.exit_code == 0
    said = json.loads(done.stdout)
    (topic,) = said["topics"]
    (view,) = topic["viewpoints"]
    assert (said["version"], said["problems"]) == ("3.0", [])
    assert (topic["title"], topic["type"], topic["status"], topic["index"]) == (
        "Duct in the beam",
        "overlap",
        "open",
        14,
    )
    assert topic["due"] == "2026-03-03T09:30:00+00:00"
    assert topic["labels"] == ["air", "structure"]
    assert topic["comments"][0]["viewpoint"] == view["guid"]
    assert (view["eye_m"], view["direction"], view["angle_deg"], view["aspect"]) == (
        [12.0, -3.5, 4.25],
        [0, 1, 0],
        50,
        1.6,
    )
    assert (view["default_visible"], view["exceptions"], view["selected"]) == (False, [DUCT, BEAM], [DUCT])
    assert view["colours"] == [{"colour": "#d98032", "components": [BEAM]}]
    assert view["planes"] == [{"point_m": [0, 0, 5], "direction": [0, 0, 1]}]
    assert view["lines"] == [[[0, 0, 0], [1, 0, 0]]]
    assert view["snapshot"].endswith(".png")


@pytest.mark.parametrize("name", ["older-2.1.bcf", "newer-3.0.bcf"])
def test_files_of_another_library_are_read(name):
    (found,), held = read(Path(__file__).parent / "others" / name)
    assert held.problems == []
    assert (held.project_name, found.title, found.created_by) == ("Quillhaven", "Pipe over the stair", "Ida Fenn")
    assert [each.global_id for each in found.viewpoints[0].selected] == [DUCT, BEAM]
    assert found.viewpoints[0].camera.angle_deg == 60.0


def test_an_angle_that_the_older_version_has_not_is_brought_to_the_nearest_and_said():
    camera = Camera((0.0, 0.0, 1.6), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0), "perspective", angle_deg=75.0, aspect=1.6)
    wide = dataclasses.replace(VIEW, camera=camera)
    data, problems = wrote("2.1", dataclasses.replace(TOPIC, viewpoints=(wide,)))
    check_valid(data, "2.1")
    assert [p.text for p in problems if p.code == "angle"] == [
        "Version 2.1 has angles of view of 45 to 60 degrees; 75.0 was brought to the nearest."
    ]
    assert wrote("3.0", dataclasses.replace(TOPIC, viewpoints=(wide,)))[1] == []


def test_a_topic_that_is_there_twice_is_written_once():
    data, problems = wrote("3.0", TOPIC, TOPIC)
    check_valid(data, "3.0")
    assert [p.code for p in problems] == ["twice"]


def altered(data, change):
    """A file with its parts as a change gives them, None for away."""
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(data)) as old, zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as new:
        for name in old.namelist():
            part = change(name, old.read(name))
            if part is not None:
                new.writestr(name, part)
    return out.getvalue()


OTHER = dataclasses.replace(TOPIC, guid=some_guid(9), title="The other one", viewpoints=(), comments=(), documents=())


@pytest.mark.parametrize(
    ("spoil", "says"),
    [
        (lambda part: part[:200], "is not what the format asks for"),
        (lambda part: b'<!DOCTYPE a [<!ENTITY x SYSTEM "file:///etc/passwd">]>' + part, "declares entities"),
        (lambda part: "<!DOCTYPE a>".encode("utf-16"), "declares entities"),
        (lambda part: part.replace(b"<Title>Duct in the beam</Title>", b"<Title> </Title>"), "has no title"),
        (lambda part: b"", "is not what the format asks for"),
    ],
)
def test_a_topic_that_cannot_be_read_is_said_and_the_others_come_in(tmp_path, spoil, says):
    data = altered(
        wrote("2.1", TOPIC, OTHER)[0],
        lambda name, part: spoil(part) if name.startswith(TOPIC.guid) and name.endswith("markup.bcf") else part,
    )
    found, held = read(at(tmp_path, data))
    assert [topic.title for topic in found] == ["The other one"]
    assert [says in p.text for p in held.problems] == [True], held.problems


@pytest.mark.parametrize(
    ("old", "new", "says"),
    [
        (b"<X>12.0</X>", b"<X>twelve</X>", "eye of a view is no number"),
        (b"<X>12.0</X>", b"<X>NaN</X>", "eye of a view is no number"),
        (b"<Y>1.0</Y>", b"<Y>0.0</Y>", "direction of a view has no length"),
        (b"<Z>5.0</Z>", b"<Z/>", "cut of a view is no number"),
        (b'Color="D98032"', b'Color="ochre"', "colour of a view is none"),
    ],
)
def test_what_of_a_view_cannot_be_read_is_said_and_the_rest_is_there(tmp_path, old, new, says):
    data = altered(
        wrote("3.0", TOPIC)[0], lambda name, part: part.replace(old, new) if name.endswith(".bcfv") else part
    )
    (topic,), held = read(at(tmp_path, data))
    assert [says in p.text for p in held.problems] == [True], held.problems
    assert topic.viewpoints[0].selected == (Component(DUCT),)


def test_what_a_file_names_and_does_not_have_is_said(tmp_path):
    gone = (".png", ".bcfv")
    data = altered(wrote("3.0", TOPIC)[0], lambda n, p: None if n.endswith(gone) or n.startswith("documents/") else p)
    (topic,), held = read(at(tmp_path, data))
    assert sorted(p.code for p in held.problems) == ["missing"] * 3
    assert topic.viewpoints == ()


def test_parts_that_would_lie_outside_of_the_file_are_left_out(tmp_path):
    out = io.BytesIO(wrote("2.1", TOPIC)[0])
    with zipfile.ZipFile(out, "a") as held:
        held.writestr("../../root/markup.bcf", "<Markup/>")
        held.writestr("/etc/markup.bcf", "<Markup/>")
    found, opened_file = read(at(tmp_path, out.getvalue()))
    assert [topic.title for topic in found] == [TOPIC.title]
    assert [p.code for p in opened_file.problems] == ["outside", "outside"]


def test_a_bomb_is_not_unpacked(tmp_path):
    data = altered(wrote("2.1", TOPIC)[0], lambda n, p: b" " * (80 << 20) if n.endswith("snapshot.png") else p)
    (topic,), held = read(at(tmp_path, data))
    assert topic.viewpoints[0].snapshot is None
    assert "unpacks to 80 MiB" in held.problems[0].text


@pytest.mark.parametrize(
    ("data", "says"),
    [
        (b"", "is no file of topics"),
        (b"ISO-10303-21;", "is no file of topics"),
        (wrote("2.1", TOPIC)[0][:-40], "is no file of topics"),
        (altered(wrote("2.1", TOPIC)[0], lambda n, p: None if n == "bcf.version" else p), "is no file of topics"),
        (altered(wrote("2.1", TOPIC)[0], lambda n, p: p.replace(b"2.1", b"9.7")), "is of version 9.7"),
        (altered(wrote("2.1", TOPIC)[0], lambda n, p: b"<" if n == "bcf.version" else p), "bcf.version is not what"),
    ],
)
def test_a_file_that_is_none_is_refused_in_one_sentence(tmp_path, data, says):
    path = at(tmp_path, data)
    with pytest.raises(CannotExchangeError, match=says), opened(path):
        pass
    for command in (["read", str(path)], ["convert", str(path), str(tmp_path / "b.bcf"), "--version", "3.0"]):
        done = CliRunner().invoke(app, ["topics", *command])
        assert (done.exit_code, done.stderr.count("\n"), "Traceback" in done.stderr) == (2, 1, False)
        assert not (tmp_path / "b.bcf").exists()


def test_converting_wants_a_version_there_is_and_another_file(tmp_path):
    path = at(tmp_path, wrote("2.1", TOPIC)[0])
    for to, version, says in ((tmp_path / "b.bcf", "1.0", "no version 1.0"), (path, "3.0", "the file that is read")):
        done = CliRunner().invoke(app, ["topics", "convert", str(path), str(to), "--version", version])
        assert done.exit_code == 2
        assert says in done.stderr
    assert read(path)[0][0].title == TOPIC.title


def test_names_with_other_case_and_backslashes_are_found(tmp_path):
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(wrote("2.1", TOPIC)[0])) as old, zipfile.ZipFile(out, "w") as new:
        for name in old.namelist():
            new.writestr(name.replace("/", "\\").replace("viewpoint.bcfv", "VIEWPOINT.bcfv"), old.read(name))
    (topic,), held = read(at(tmp_path, out.getvalue()))
    assert held.problems == []
    assert topic.viewpoints[0].camera.eye_m == (12.0, -3.5, 4.25)


@pytest.mark.parametrize(("off_m", "shift"), [(15.0, (1000.0, 0.0, 0.0)), (40.0, None)])
def test_a_shift_is_told_only_where_the_lines_of_sight_then_pass_near_what_is_selected(off_m, shift):
    """Eyes from four sides, all 1000 m off, each looking past its component by so much, to one side and the other."""
    sights = []
    for k, (x, y) in enumerate([(1.0, 0.0), (0.0, 1.0), (-1.0, 0.0), (0.0, -1.0)] * 2):
        aside = off_m if k < 4 else -off_m
        target = (-y * aside, x * aside, 0.0)
        eye = (target[0] - 20 * x - 1000.0, target[1] - 20 * y, 0.0)
        sights.append(Sight(eye, (x, y, 0.0), (0.0, 0.0, 0.0)))
    assert shift_between(sights) == shift
