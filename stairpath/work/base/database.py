"""What those who ask the application need to know of its database: whether it answers, and how it fails."""

from __future__ import annotations

from stairpath.store.database import CONFLICTING as CONFLICTING
from stairpath.store.database import NOT_STORABLE as NOT_STORABLE
from stairpath.store.database import UNREACHABLE as UNREACHABLE
from stairpath.store.database import answers as answers
from stairpath.store.database import is_busy as is_busy
from stairpath.store.database import is_full as is_full
from stairpath.store.database import note_full as note_full
from stairpath.store.database import was_full as was_full
from stairpath.store.events import Event as Event
from stairpath.store.events import listen as listen
