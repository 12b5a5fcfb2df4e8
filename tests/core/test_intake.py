"""Each kind of bad file gets its own clear sentence."""

import io
import tracemalloc
import zipfile

import pytest

from stairpath.core.problems import CannotReadError
from stairpath.core.reading.intake import Limits, take_in, take_in_path
from tests.samples import simple


def given(name: str, content: bytes, limits: Limits | None = None):
    with take_in(name, io.BytesIO(content), limits) as files:
        return [(inner, (stream.seek(0), stream.read())[1]) for inner, stream in files]


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
        take_in_path(tmp_path / "none.ifc", tmp_path)
    with pytest.raises(CannotReadError, match="cannot be opened"):
        take_in_path(tmp_path, tmp_path)


def test_an_archive_on_disk_is_unpacked_into_a_folder_and_a_model_is_taken_as_it_lies(tmp_path):
    content = simple().content()
    (tmp_path / "pack.ifczip").write_bytes(packed({"a.ifc": content, "b.ifc": content}))
    (tmp_path / "c.ifc").write_bytes(content)
    into = tmp_path / "into"
    into.mkdir()
    found = take_in_path(tmp_path / "pack.ifczip", into)
    assert [name for name, _ in found] == ["a.ifc", "b.ifc"]
    assert [path.read_bytes() for _, path in found] == [content, content]
    assert take_in_path(tmp_path / "c.ifc", into) == [("c.ifc", tmp_path / "c.ifc")]


def test_an_archive_of_very_many_files_is_refused_before_they_are_listed():
    crowd = packed({f"{i}.ifc": b"" for i in range(1200)})
    with pytest.raises(CannotReadError, match="holds more than 1000 files"):
        given("a.ifczip", crowd)


def test_a_table_of_contents_that_lies_about_sizes_is_found_out_while_unpacking():
    """The size of the member is changed to 10 bytes in the table of contents and before the member itself."""
    bomb = packed({"a.ifc": b"ISO-10303-21;" + b"0" * (8 << 20)})
    size = ((8 << 20) + 13).to_bytes(4, "little")
    assert bomb.count(size) == 2
    with pytest.raises(CannotReadError, match=r"unpacks to more than|cannot be unpacked"):
        given("a.ifczip", bomb.replace(size, (10).to_bytes(4, "little")), Limits(unpacked_bytes=1 << 20))


def test_unpacking_takes_little_memory(tmp_path):
    """64 MB unpacked, with at most a few pieces of it in memory at a time."""
    big = packed({"a.ifc": simple().content() + b" " * (64 << 20) + b"END-ISO-10303-21;"})
    tracemalloc.start()
    with take_in("a.ifczip", io.BytesIO(big)) as files:
        assert len(files) == 1
    _, peak = tracemalloc.get_traced_memory()
    tracemalloc.stop()
    assert peak < 24 << 20
