"""Each kind of bad file gets its own clear sentence."""

import io
import zipfile

import pytest

from stairpath.core.problems import CannotReadError
from stairpath.core.reading.intake import Limits, take_in, take_in_path
from tests.samples import simple


def given(name: str, content: bytes, limits: Limits | None = None):
    return take_in(name, io.BytesIO(content), limits)


def packed(members: dict[str, bytes]) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, content in members.items():
            archive.writestr(name, content)
    return out.getvalue()


def test_a_whole_file_is_taken():
    content = simple().content()
    assert given("a.ifc", content) == [("a.ifc", content)]


def test_a_zip_gives_every_model_in_it():
    content = simple().content()
    found = given("pack.ifczip", packed({"sub/a.ifc": content, "b.IFC": content, "notes.txt": b"no"}))
    assert [name for name, _ in found] == ["a.ifc", "b.IFC"]


@pytest.mark.parametrize(
    ("name", "content", "words"),
    [
        ("a.ifc", b"", "is empty"),
        ("a.ifczip", b"", "is empty"),
        ("a.ifc", b"solid cube\nendsolid", "is not an IFC file"),
        ("a.ifc", simple().content()[:-400], "is cut short"),
        ("a.ifczip", b"PK not really", "not a readable zip"),
        ("a.ifczip", packed({"notes.txt": b"no"}), "holds no .ifc"),
        ("a.ifczip", packed({"a.ifc": b"no"}), "a.ifc in a.ifczip is not an IFC file"),
    ],
)
def test_bad_files_say_what_is_wrong(name, content, words):
    with pytest.raises(CannotReadError, match=words) as error:
        given(name, content)
    sentence = str(error.value)
    assert sentence.endswith(".")
    assert "\n" not in sentence


def test_too_large_names_the_limit():
    with pytest.raises(CannotReadError, match="more than the 1 kB"):
        given("a.ifc", b"x" * 5000, Limits(file_bytes=1024))


def test_a_zip_that_unpacks_to_too_much_is_stopped_early():
    bomb = packed({"a.ifc": b"ISO-10303-21;" + b"0" * (8 << 20)})
    assert len(bomb) < 64 << 10
    with pytest.raises(CannotReadError, match="unpacks to more than 1 MB"):
        given("a.ifczip", bomb, Limits(unpacked_bytes=1 << 20))


def test_a_damaged_member_is_refused():
    content = bytearray(packed({"a.ifc": simple().content()}))
    content[200] ^= 0xFF
    with pytest.raises(CannotReadError, match="cannot be unpacked"):
        given("a.ifczip", bytes(content))


def test_a_path_that_is_not_there(tmp_path):
    with pytest.raises(CannotReadError, match="does not exist"):
        take_in_path(tmp_path / "none.ifc")
    with pytest.raises(CannotReadError, match="cannot be opened"):
        take_in_path(tmp_path)
