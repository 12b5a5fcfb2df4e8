"""``stairpath migrate``: this version's tables, for the owners of the server."""

from __future__ import annotations

import sys


def migrate() -> None:
    """Bring the database to this version's tables. Nothing happens where it has them."""
    from stairpath.store.migrate import migrate as bring
    from stairpath.store.migrate import newest

    bring()
    sys.stdout.write(f"The database has the tables of {newest()}.\n")
