"""Checks for interference: the job that runs one."""

from __future__ import annotations

import json
from collections import Counter
from collections.abc import Sequence
from typing import Any

import numpy as np

from stairpath.core.component_ref import NamedComponent
from stairpath.core.federation.placed import all_placed
from stairpath.core.geometry.origin import in_project
from stairpath.core.measuring.check import Check, pack_known, unpack_known
from stairpath.core.measuring.distance import Vector
from stairpath.core.measuring.interference import Interference, Pair, interference
from stairpath.core.measuring.prints import prints_of
from stairpath.core.measuring.sweeps import swept_by_doors
from stairpath.core.measuring.things import Things
from stairpath.core.sandbox import Progress
from stairpath.store import blobs, components, kept
from stairpath.work.base.errors import UnfitError
from stairpath.work.base.unit_of_work import WORKER, unit_of_work
from stairpath.work.results.results import building_for, keep_results
from stairpath.work.walking.walkable_building import named_components, names_in

_MOST_FINDINGS = 2000
_KNOWN = "known"
FINDINGS = "findings"


def _worst(pairs: Sequence[Pair]) -> Pair:
    return min(pairs, key=lambda pair: (-pair.depth_m, pair.distance_m))


def document(found: Interference, origin_m: Vector, called: dict[int, NamedComponent]) -> dict[str, Any]:
    """Findings in project coordinates, the deepest first, with the components that they are of by name."""
    place = {component: k for k, component in enumerate(called)}

    def pair(one: Pair) -> dict[str, Any]:
        return {
            "a": place[one.a], "b": place[one.b], "kind": one.kind, "depth_m": one.depth_m, "volume_m3": one.volume_m3,
            "distance_m": one.distance_m, "at_m": in_project(one.at_m, origin_m).tolist(),
        }  # fmt: skip

    shown = found.findings[:_MOST_FINDINGS]
    return {
        "checked": found.checked,
        "anew": found.anew,
        "count": len(found.findings),
        "left_out": dict(Counter(p.left_out for p in found.pairs if p.left_out is not None)),
        "components": [vars(called[component]) for component in called],
        "findings": [
            {
                "at_m": in_project(finding.at_m, origin_m).tolist(),
                "components": [place[c] for c in finding.components],
                "worst": pair(_worst([found.pairs[k] for k in finding.pairs])),
                "pairs": [pair(found.pairs[k]) for k in finding.pairs],
            }
            for finding in shown
        ],
    }


def find_findings(task_id: str, asked: int, report: Progress) -> None:
    """Run a check and keep its findings; in a child process. What did not change since the last run is not measured."""
    with unit_of_work(WORKER) as act:
        ground = building_for(act, task_id)
        check = ground.wish
        if not isinstance(check, Check):
            raise AssertionError("only a check is checked")
        names = names_in(ground.models, ground.federation)
        kin = components.kin_of(act.session, ground.models)
        row = kept.task_by_id(act.session, task_id)
        before = blobs.load(act.session, row.results[_KNOWN]) if row is not None and _KNOWN in row.results else None
    report(0.0, "bringing the building together")
    federation = ground.federation
    a, b = (ground.in_order(group.members(ground.traits)) for group in (check.a, check.b))
    for mask, group in ((a, check.a), (b, check.b)):
        if not mask.any():
            raise UnfitError(f"There is nothing in {group.called or 'one of the groups'}; choose another group.")
    about = np.array(federation.origin_m)
    swept = swept_by_doors(federation, about) if check.swings else None
    parts = all_placed(federation)
    known = unpack_known(before[0], check.clearance_m, check.touch_m) if before is not None else None
    found = interference(
        Things(parts, about, swept), kin, a, b, check.clearance_m, check.touch_m, check.leave_out, check.together_m,
        report, prints_of(parts, swept), known,
    )  # fmt: skip
    with unit_of_work(WORKER) as act:
        wanted = dict.fromkeys(c for f in found.findings[:_MOST_FINDINGS] for c in f.components)
        called = named_components(act, names, wanted)
    told = document(found, federation.origin_m, called)
    keep_results(
        task_id, asked, ground.version,
        {
            FINDINGS: (json.dumps(told).encode(), "application/json"),
            _KNOWN: (pack_known(found.known, check.clearance_m, check.touch_m), "application/octet-stream"),
        },
        f"{found.anew} of {found.checked} pairs measured",
    )  # fmt: skip
