"""What hangs together."""

from __future__ import annotations

import numba
import numpy as np


@numba.njit(cache=True, nogil=True)
def groups(count, one, other):
    """The group (count,) that each thing is of when pairs (n,) and (n,) join them, counted as they come.

    Union by the lower number, with paths halved (Tarjan, 1975): small bodies are many, and each has few triangles.
    """
    root = np.arange(count)
    for k in range(len(one)):
        i, j = one[k], other[k]
        while root[i] != i:
            root[i] = root[root[i]]
            i = root[i]
        while root[j] != j:
            root[j] = root[root[j]]
            j = root[j]
        if i < j:
            root[j] = i
        else:
            root[i] = j
    label = np.empty(count, dtype=np.int64)
    made = 0
    for i in range(count):
        if root[i] == i:
            label[i] = made
            made += 1
        else:  # its root is lower, and has its label
            j = i
            while root[j] != j:
                j = root[j]
            label[i] = label[j]
    return label
