"""A heap of nodes by their keys."""

from __future__ import annotations

import numba
import numpy as np


@numba.njit(cache=True, nogil=True)
def push(keys, nodes, size, key, node):
    """Put a node on a heap; returns the heap, grown if it was full, and its new size."""
    if size == len(keys):
        more_keys, more_nodes = np.empty(2 * size), np.empty(2 * size, dtype=np.int64)
        more_keys[:size], more_nodes[:size] = keys, nodes
        keys, nodes = more_keys, more_nodes
    k = size
    while k > 0 and keys[(k - 1) // 2] > key:
        keys[k], nodes[k] = keys[(k - 1) // 2], nodes[(k - 1) // 2]
        k = (k - 1) // 2
    keys[k], nodes[k] = key, node
    return keys, nodes, size + 1


@numba.njit(cache=True, nogil=True)
def pop(keys, nodes, size):
    """Take the node with the least key off a heap; returns it, its key and the new size."""
    key, node = keys[0], nodes[0]
    size -= 1
    last_key, last_node = keys[size], nodes[size]
    k = 0
    while True:
        child = 2 * k + 1
        if child >= size:
            break
        if child + 1 < size and keys[child + 1] < keys[child]:
            child += 1
        if keys[child] >= last_key:
            break
        keys[k], nodes[k] = keys[child], nodes[child]
        k = child
    keys[k], nodes[k] = last_key, last_node
    return node, key, size
