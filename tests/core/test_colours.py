"""The palette: every discipline apart from every other, also for eyes that see fewer colours."""

import re
from itertools import combinations

import numpy as np
import pytest

from stairpath.core.federation.disciplines import DISCIPLINES
from stairpath.core.visibility.colours import base_colour

# Machado, Oliveira and Fernandes 2009, severity 1.0, on linear RGB.
DEFICIENCIES = {
    "protan": [[0.152286, 1.052583, -0.204868], [0.114503, 0.786281, 0.099216], [-0.003882, -0.048116, 1.051998]],
    "deutan": [[0.367322, 0.860646, -0.227968], [0.280085, 0.672501, 0.047413], [-0.011820, 0.042940, 0.968881]],
    "normal": [[1, 0, 0], [0, 1, 0], [0, 0, 1]],
}


def linear(colour: str):
    rgb = np.array([int(colour[i : i + 2], 16) for i in (1, 3, 5)]) / 255
    return np.where(rgb <= 0.04045, rgb / 12.92, ((rgb + 0.055) / 1.055) ** 2.4)


def lab(rgb):
    xyz = np.array([[0.4124, 0.3576, 0.1805], [0.2126, 0.7152, 0.0722], [0.0193, 0.1192, 0.9505]]) @ rgb
    f = np.cbrt(np.maximum(xyz / [0.9505, 1.0, 1.089], 1e-6))
    return np.array([116 * f[1] - 16, 500 * (f[0] - f[1]), 200 * (f[1] - f[2])])


@pytest.mark.parametrize("eyes", DEFICIENCIES)
def test_disciplines_can_be_told_apart(eyes):
    seen = {
        d.code: lab(np.clip(np.array(DEFICIENCIES[eyes]) @ linear(d.colour), 0, 1))
        for d in DISCIPLINES
        if d.code != "OTH"
    }
    apart = {(a, b): np.linalg.norm(seen[a] - seen[b]) for a, b in combinations(seen, 2)}
    nearest = min(apart, key=lambda pair: apart[pair])
    assert apart[nearest] > 7, (nearest, apart[nearest])


def test_every_colour_is_a_colour_and_toned_by_class():
    for index, known in enumerate(DISCIPLINES):
        for cls in ("IfcWall", "IfcBeam", "IfcDoor", "IfcSomethingNew"):
            assert re.fullmatch("#[0-9a-f]{6}", base_colour(index, cls)), known
    assert linear(base_colour(0, "IfcCovering")).sum() > linear(base_colour(0, "IfcDoor")).sum()
