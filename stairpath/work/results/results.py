"""What jobs make for tasks: what they need of the building, and keeping what came of it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime

import numpy as np

from stairpath.core.exchange.import_request import TopicsIn
from stairpath.core.federation.federate import Federation
from stairpath.core.measuring.check import Check
from stairpath.core.review.sheet_request import SheetRequest
from stairpath.core.visibility.traits import Mask, Traits
from stairpath.store import blobs, federations, kept, projects
from stairpath.work.base.errors import UnfitError
from stairpath.work.base.unit_of_work import WORKER, UnitOfWork, unit_of_work
from stairpath.work.building.visibility import traits_of


@dataclass(frozen=True, eq=False)
class TaskBuilding:
    """A task's wish, the project's version, its building with what rules ask of it, and its models' ids."""

    wish: Check | SheetRequest | TopicsIn
    version: int
    project_name: str
    federation: Federation
    models: Sequence[str]
    traits: Traits

    def in_order(self, mask: Mask) -> Mask:
        """A mask over the components as rules count them, as the building counts them."""
        out = []
        for key, model in zip(self.models, self.federation.models, strict=True):
            count = len(model.outline.global_ids)
            if key in self.traits.keys:
                first = int(self.traits.first[self.traits.keys.index(key)])
                out.append(mask[first : first + count])
            else:
                out.append(np.zeros(count, dtype=bool))
        return np.concatenate(out) if out else np.zeros(0, dtype=bool)


def building_for(act: UnitOfWork, task_id: str) -> TaskBuilding:
    """What a task is done on; refused where the building is just being put together."""
    row = kept.task_by_id(act.session, task_id)
    project = projects.project_by_id(act.session, row.project_id) if row is not None else None
    if row is None or project is None or project.federation is None:
        raise UnfitError("The building is gone. Open the project again.")
    try:
        federation = federations.load_building(act.session, project)
    except federations.ChangedError:
        raise UnfitError("The building is being put together again. Run it again in a moment.") from None
    _, traits = traits_of(act, project.id)
    return TaskBuilding(row.wish, project.version, project.name, federation, project.federation.models, traits)


def keep_results(task_id: str, asked: int, version: int, made: dict[str, tuple[bytes, str]], message: str) -> None:
    """Keep what came of a task, unless it is wanted otherwise by now."""
    with unit_of_work(WORKER) as act:
        row = kept.task_by_id(act.session, task_id, hold=True)
        if row is None or row.asked != asked or row.stop or row.removed_at is not None:
            return
        row.results = {name: blobs.keep(act.session, row.project_id, data, kind) for name, (data, kind) in made.items()}
        row.status, row.share, row.message = "done", 1.0, message
        row.made, row.made_for, row.made_at = asked, version, datetime.now(UTC)
        act.tell(row.project_id, "tasks", what=row.id)
