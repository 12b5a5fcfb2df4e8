"""What became of topics of findings when their check was run again."""

from __future__ import annotations

import json
from dataclasses import dataclass

from stairpath.core.review.recheck import Known, Measured, Pair, Proposal, pair, proposals, worst
from stairpath.store import blobs, topics
from stairpath.work.base.lookup import TASK, find
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import read_only
from stairpath.work.tasks.checks import FINDINGS
from stairpath.work.topics.rules import rules_of
from stairpath.work.topics.topics import Listed, listed_as


@dataclass(frozen=True)
class Proposed:
    """A proposal with its topic."""

    proposal: Proposal
    topic: Listed


def proposed(task_id: str) -> list[Proposed]:
    """What the last run of a check tells of the topics that were made of its findings."""
    with read_only() as look:
        row = find(look, TASK, task_id)
        held = blobs.load(look.session, row.results[FINDINGS]) if FINDINGS in row.results else None
        if held is None:
            return []
        document = json.loads(held[0])
        ids = [each["global_id"] for each in document["components"]]
        found: dict[Pair, Measured] = {}
        for finding in document["findings"]:
            for each in finding["pairs"]:
                key = pair(ids[each["a"]], ids[each["b"]])
                now = Measured(each["kind"], each["depth_m"], each["distance_m"])
                found[key] = worst([now, found.get(key, now)]) or now
        ends = {status.name for status in rules_of(in_use(look, row.project_id)).statuses.all if status.end}
        rows = {
            t.id: t for t in topics.topics(look.session, row.project_id) if t.finding and t.finding.check == task_id
        }
        known = [Known(t.id, t.finding, t.said.status in ends) for t in rows.values() if t.finding is not None]
        whole = document["count"] <= len(document["findings"])
        return [Proposed(each, listed_as(look, rows[each.topic])) for each in proposals(known, found, whole)]
