"""Columns come back from their bytes as they were."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from hypothesis.extra.numpy import arrays

from stairpath.core import columns

texts = st.lists(st.text(st.characters(exclude_categories=["Cs"], exclude_characters="\0"), max_size=12), max_size=9)
numbers = st.sampled_from(["uint8", "uint16", "int32", "float32", "float64"]).flatmap(
    lambda kind: arrays(np.dtype(kind), st.integers(0, 9))
)


@given(st.dictionaries(st.text("abc", min_size=1, max_size=3), st.one_of(texts, numbers), max_size=5))
def test_columns_come_back(given_columns):
    data = columns.pack(given_columns)
    assert columns.pack(given_columns) == data
    back = columns.unpack(data)
    assert list(back) == list(given_columns)
    for name, column in given_columns.items():
        if isinstance(column, list):
            assert back[name] == column
        else:
            assert back[name].dtype == column.dtype
            assert np.array_equal(back[name], column, equal_nan=True)


def test_columns_lie_at_multiples_of_eight_for_a_browser_to_read():
    import gzip
    import json

    raw = gzip.decompress(columns.pack({"a": ["x"], "b": np.arange(3, dtype=np.int32), "c": np.zeros(2)}))
    size = int.from_bytes(raw[4:8], "little")
    entries = json.loads(raw[8 : 8 + size])
    assert raw[:4] == b"COLS"
    assert [(8 + size + entry["at"]) % 8 for entry in entries] == [0, 0, 0]


@pytest.mark.parametrize("bad", [np.zeros(2, np.int64), np.zeros(2, bool)])
def test_other_kinds_are_refused(bad):
    with pytest.raises(ValueError, match="is not kept"):
        columns.pack({"x": bad})


def test_other_bytes_are_refused():
    import gzip

    with pytest.raises(ValueError, match="are no columns"):
        columns.unpack(gzip.compress(b"WALK" + bytes(60)))
