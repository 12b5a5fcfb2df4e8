"""Keeping a picture: a small one for lists, made once, and the whole one where that is larger."""

from __future__ import annotations

from stairpath.core.exchange.pictures import MEDIA, checked, small
from stairpath.store import blobs
from stairpath.work.base.unit_of_work import UnitOfWork


def keep_picture(act: UnitOfWork, project_id: str, picture: bytes) -> tuple[str, str | None]:
    """The hashes of a picture for lists, and of the whole one where that is larger than they need.

    Raises NotAPictureError for what cannot be shown.
    """
    kind = MEDIA[checked(picture)]
    whole = blobs.keep(act.session, project_id, picture, kind)
    for_lists = small(picture)
    return (whole, None) if for_lists is None else (blobs.keep(act.session, project_id, for_lists, kind), whole)
