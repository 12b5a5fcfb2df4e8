"""Topics of the open format: made up for tests, any that the model allows, and the checks of what is written."""

from __future__ import annotations

import io
import uuid
import zipfile
from datetime import UTC, datetime, timedelta
from functools import cache
from pathlib import Path

from hypothesis import strategies as st
from lxml import etree
from PIL import Image

from stairpath.core.exchange import bcf
from stairpath.core.exchange.topic import (
    Bitmap,
    Camera,
    Colouring,
    Comment,
    Component,
    Document,
    Hints,
    ModelFile,
    Plane,
    Snippet,
    Topic,
    Viewpoint,
)  # fmt: skip


def png(width: int = 8, height: int = 6, colour: str = "white") -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (width, height), colour).save(out, "PNG")
    return out.getvalue()


PNG = png()


def jpg(width: int = 8, height: int = 6, colour: str = "white") -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (width, height), colour).save(out, "JPEG")
    return out.getvalue()


JPG = jpg()
_LETTERS = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz_$"

guids = st.uuids().map(str)
texts = st.text(
    st.characters(blacklist_categories=("Cs", "Cc"), blacklist_characters="\ufffe\uffff"), min_size=1, max_size=20
).filter(lambda text: text.strip() == text and text != "unspecified")
maybe = st.just("") | texts
lines_of_text = st.just("") | st.lists(texts, min_size=1, max_size=3).map("\n".join)
times = st.datetimes(datetime(1990, 1, 1), datetime(2090, 1, 1)).map(lambda t: t.replace(microsecond=0, tzinfo=UTC))
lengths = st.floats(-1e7, 1e7, allow_subnormal=False)
points = st.tuples(lengths, lengths, lengths)
ways = st.tuples(*[st.floats(-1, 1, allow_subnormal=False)] * 3).filter(any)
global_ids = st.text(_LETTERS, min_size=22, max_size=22)
components = st.builds(Component, global_ids, maybe, maybe)
several = st.lists(components, max_size=3).map(tuple)
cameras = st.builds(
    Camera, points, ways, ways, st.just("perspective"), angle_deg=st.floats(45, 60), aspect=st.none()
) | st.builds(Camera, points, ways, ways, st.just("parallel"), height_m=st.floats(0.1, 1e4), aspect=st.none())
colourings = st.builds(
    Colouring,
    st.integers(0, 0xFFFFFF).map("#{:06x}".format),
    st.lists(components, min_size=1, max_size=2).map(tuple),
    st.none() | st.integers(0, 255),
)
viewpoints = st.builds(
    Viewpoint,
    guid=guids,
    camera=st.none() | cameras,
    default_visible=st.booleans(),
    exceptions=several,
    selected=several,
    colours=st.lists(colourings, max_size=2).map(tuple),
    planes=st.lists(st.builds(Plane, points, ways), max_size=2).map(tuple),
    lines=st.lists(st.tuples(points, points), max_size=2).map(tuple),
    bitmaps=st.lists(
        st.builds(Bitmap, st.just("png"), st.just(PNG), points, ways, ways, st.floats(0.01, 100)), max_size=1
    ).map(tuple),
    hints=st.builds(Hints, st.booleans(), st.booleans(), st.booleans()),
    snapshot=st.sampled_from([None, PNG, JPG]),
    index=st.none() | st.integers(0, 99),
    snapshot_name=st.just(""),
)


@st.composite
def topics(draw) -> Topic:
    views = tuple(draw(st.lists(viewpoints, max_size=2, unique_by=lambda view: view.guid)))
    seen = st.sampled_from([None, *(view.guid for view in views)])
    made = draw(times)
    names = draw(st.lists(st.from_regex(r"[a-z]{1,8}\.pdf", fullmatch=True), max_size=2, unique=True))
    documents = [Document(draw(guids), name, draw(texts), b"held") for name in names]
    if draw(st.booleans()):
        documents.append(
            Document(draw(guids), "https://example.org/a.pdf", draw(maybe), url="https://example.org/a.pdf")
        )
    return Topic(
        guid=draw(guids),
        title=draw(texts),
        created_by=draw(texts),
        created_at=made,
        description=draw(lines_of_text),
        kind=draw(maybe),
        status=draw(maybe),
        priority=draw(maybe),
        assigned_to=draw(maybe),
        stage=draw(maybe),
        due=draw(st.none() | times),
        labels=tuple(draw(st.lists(texts, max_size=3))),
        index=draw(st.none() | st.integers(0, 9999)),
        modified_by=draw(maybe),
        modified_at=draw(st.none() | st.just(made + timedelta(hours=1))),
        links=tuple(draw(st.lists(texts, max_size=1))),
        related=tuple(draw(st.lists(guids, max_size=2))),
        documents=tuple(documents),
        files=tuple(
            draw(st.lists(st.builds(ModelFile, texts, st.none() | times, maybe, st.just("") | global_ids), max_size=2))
        ),
        snippet=draw(st.none() | st.just(Snippet("part", "part.ifc", "ifc.xsd", False, b"ISO"))),
        comments=tuple(
            draw(
                st.lists(
                    st.builds(Comment, guids, texts, times, lines_of_text, seen, maybe, st.none() | times), max_size=2
                )
            )
        ),
        viewpoints=views,
    )


_SCHEMAS = {
    "markup.bcf": "markup", ".bcfv": "visinfo", "project.bcfp": "project", "bcf.version": "version",
    "extensions.xml": "extensions", "documents.xml": "documents",
}  # fmt: skip
_FOLDERS = {"2.1": "v2_1", "3.0": "v3_0"}


@cache
def _schema(version: str, part: str) -> etree.XMLSchema | None:
    path = Path(bcf.__file__).parent / "schemas" / _FOLDERS[version] / f"{part}.xsd"
    return etree.XMLSchema(etree.parse(str(path))) if path.exists() else None


def check_valid(data: bytes, version: str) -> None:
    """Whether every part of a file is what the standard's schemas say."""
    with zipfile.ZipFile(io.BytesIO(data)) as held:
        assert "bcf.version" in held.namelist()
        assert len(set(held.namelist())) == len(held.namelist())
        for name in held.namelist():
            end = next((end for end in _SCHEMAS if name.endswith(end)), None)
            schema = end and _schema(version, _SCHEMAS[end])
            if schema:
                schema.assertValid(etree.fromstring(held.read(name)))


def some_guid(number: int) -> str:
    return str(uuid.UUID(int=number))
