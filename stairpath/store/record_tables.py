"""The table of the record: who did what, when and from where. Its rows are only ever added."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import BigInteger, Index, String, Text
from sqlalchemy.orm import Mapped, mapped_column

from stairpath.core.review.history import ChangedField
from stairpath.store.documents import Document
from stairpath.store.tables import Base


class RecordEntry(Base):
    """Something that was done. ``chain`` is a project's id, or "server"; ``hash`` is over it and all before it in its chain."""

    __tablename__ = "record_entry"
    __table_args__ = (Index("record_by_time", "chain", "at"), Index("record_of_thing", "chain", "thing_id"))
    chain: Mapped[str] = mapped_column(String(32), primary_key=True)
    number: Mapped[int] = mapped_column(BigInteger, primary_key=True, autoincrement=False)
    at: Mapped[datetime]
    who: Mapped[str] = mapped_column(Text)
    person_id: Mapped[str | None] = mapped_column(String(32))
    address: Mapped[str] = mapped_column(Text)
    browser: Mapped[str] = mapped_column(Text)
    token: Mapped[str] = mapped_column(Text)
    action: Mapped[str] = mapped_column(Text)
    kind: Mapped[str] = mapped_column(Text)
    thing_id: Mapped[str] = mapped_column(Text)
    title: Mapped[str] = mapped_column(Text)
    fields: Mapped[list[ChangedField]] = mapped_column(Document(list[ChangedField]))
    hash: Mapped[str] = mapped_column(String(64))


class RecordHead(Base):
    """The last entry of a chain, so that an end that was cut off shows too. Held while an entry is added."""

    __tablename__ = "record_head"
    chain: Mapped[str] = mapped_column(String(32), primary_key=True)
    number: Mapped[int] = mapped_column(BigInteger, default=0)
    hash: Mapped[str] = mapped_column(String(64))
