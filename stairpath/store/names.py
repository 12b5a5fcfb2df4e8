"""Every place where rows name people, and putting another name there; and what names of files mean in a project."""

from __future__ import annotations

import json
from collections.abc import Sequence
from datetime import datetime

from sqlalchemy import ForeignKey, String, Text, delete, select, text
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Mapped, Session, mapped_column

from stairpath.core.people.renaming import name_key, renamed, renamed_sentence
from stairpath.store.person_tables import Person
from stairpath.store.tables import Base, now

_TEXTS = {
    "project": ("created_by",), "model": ("added_by",), "earlier_issue": ("added_by",), "folder": ("author",),
    "viewpoint": ("author", "changed_by"), "viewpoint_before": ("changed_by",), "change_made": ("author",),
    "saved_route": ("author",), "component_set": ("author",), "topic": ("author", "changed_by", "news_by"),
    "topic_file": ("author",), "topic_note": ("author",), "meeting": ("author",), "meeting_point": ("who", "author"),
    "task": ("author",), "member": ("added_by", "label"), "guest_link": ("made_by",),
}  # fmt: skip
_LISTS = {"meeting": ("present", "absent")}
_DOCUMENTS = {
    "project": ("home", "walking"), "model": ("placement",), "viewpoint": ("view",), "viewpoint_before": ("view",),
    "link": ("view",), "topic": ("said", "exchanged", "question"), "topic_note": ("changed",), "change_made": ("fields",),
    "task": ("wish",), "component_set": ("conditions",),
}  # fmt: skip
_LOOKS = {
    "project_visit": ("project_id", "last_at"),
    "viewpoint_look": ("project_id", "at"),
    "topic_look": ("topic_id", "at"),
}
"""Tables with a row for each name, with what it is of and when; of two that become one the later stays."""
_OF_TOPIC = "topic_id IN (SELECT id FROM topic WHERE project_id = :project)"
_WITHIN = {
    "project": "id = :project",
    "earlier_issue": "model_id IN (SELECT id FROM model WHERE project_id = :project)",
    "viewpoint_before": "viewpoint_id IN (SELECT id FROM viewpoint WHERE project_id = :project)",
    "topic_file": _OF_TOPIC,
    "topic_note": _OF_TOPIC,
    "topic_look": _OF_TOPIC,
    "meeting_point": "meeting_id IN (SELECT id FROM meeting WHERE project_id = :project)",
}
_AS_COMPARED = "lower(regexp_replace(btrim({}), '\\s+', ' ', 'g'))"


class KnownName(Base):
    """A name that came in with files, and whose it is in a project, as somebody said once."""

    __tablename__ = "known_name"
    project_id: Mapped[str] = mapped_column(ForeignKey("project.id", ondelete="CASCADE"), primary_key=True)
    key: Mapped[str] = mapped_column(Text, primary_key=True)
    """The name as it is compared."""
    name: Mapped[str] = mapped_column(Text)
    person_id: Mapped[str] = mapped_column(String(32), ForeignKey("person.id", ondelete="CASCADE"))
    said_by: Mapped[str] = mapped_column(Text)
    at: Mapped[datetime] = mapped_column(default=now)


def known_names(session: Session, project_id: str) -> dict[str, str]:
    """The names that somebody said whose they are, as they are compared, each with what that person is called now."""
    wanted = select(KnownName.key, Person.name).join(Person, Person.id == KnownName.person_id)
    return dict(session.execute(wanted.where(KnownName.project_id == project_id)).tuples().all())


def remember(session: Session, project_id: str, name: str, person_id: str, by: str) -> None:
    """Remember whose a name is in a project."""
    values = {"name": name, "person_id": person_id, "said_by": by}
    row = insert(KnownName).values(project_id=project_id, key=name_key(name), **values)
    session.execute(row.on_conflict_do_update(index_elements=["project_id", "key"], set_=values))


def forget(session: Session, project_id: str, key: str) -> None:
    """Forget whose a name is in a project."""
    session.execute(delete(KnownName).where(KnownName.project_id == project_id, KnownName.key == key))


def remembered(session: Session, project_id: str) -> Sequence[tuple[str, str]]:
    """The names of a project that somebody said whose they are, each with what that person is called."""
    wanted = select(KnownName.name, Person.name).join(Person, Person.id == KnownName.person_id)
    return session.execute(wanted.where(KnownName.project_id == project_id).order_by(KnownName.key)).tuples().all()


def rename(session: Session, old: str, new: str, project_id: str | None = None) -> None:
    """Call everybody of a name by another one: in one project, or in all; the record stays as it was written."""
    given = {"old": name_key(old), "new": new, "project": project_id}

    def of(table: str) -> str:
        return "true" if project_id is None else _WITHIN.get(table, "project_id = :project")

    for table, columns in _TEXTS.items():
        for column in columns:
            same = _AS_COMPARED.format(column)
            session.execute(text(f"UPDATE {table} SET {column} = :new WHERE {same} = :old AND {of(table)}"), given)
    for table, columns in _LISTS.items():
        for column in columns:
            same = _AS_COMPARED.format("one")
            names = f"ARRAY(SELECT CASE WHEN {same} = :old THEN :new ELSE one END FROM unnest({column}) AS one)"
            there = f"EXISTS (SELECT FROM unnest({column}) AS one WHERE {same} = :old)"
            session.execute(text(f"UPDATE {table} SET {column} = {names} WHERE {there} AND {of(table)}"), given)
    for table, (whole, at) in _LOOKS.items():
        _join(session, table, whole, at, of(table), given)
    asked = f"SELECT id, text FROM topic_note WHERE text ILIKE :some AND {of('topic_note')}"
    for row in session.execute(text(asked), {**given, "some": f"%{_like(old)}%"}).all():
        said = renamed_sentence(row.text, " ".join(old.split()), new)
        session.execute(text("UPDATE topic_note SET text = :said WHERE id = :id"), {"said": said, "id": row.id})
    for table, documents in _DOCUMENTS.items():
        for column in documents:
            _rename_in(session, table, column, of(table), old, given)


def _join(session: Session, table: str, whole: str, at: str, within: str, given: dict[str, str | None]) -> None:
    """Rename in a table with one row for each name; where somebody has looked by both names the later look counts."""
    same = _AS_COMPARED.format("who")
    asked = f"SELECT {whole} AS whole, who, {at} AS at FROM {table} WHERE {same} = :old AND who <> :new AND {within}"
    for row in session.execute(text(asked), given).all():
        one = {"whole": row.whole, "who": row.who, "at": row.at, "new": given["new"]}
        later = f"UPDATE {table} SET {at} = greatest({at}, :at) WHERE {whole} = :whole AND who = :new RETURNING 1"
        both = session.execute(text(later), one).first() is not None
        rest = f"DELETE FROM {table}" if both else f"UPDATE {table} SET who = :new"
        session.execute(text(f"{rest} WHERE {whole} = :whole AND who = :who"), one)


def _rename_in(session: Session, table: str, column: str, within: str, old: str, given: dict[str, str | None]) -> None:
    new = given["new"] or ""
    # What is looked at is what may hold the name; JSON writes it with its letters or escaped.
    asked = f"SELECT ctid::text AS at, {column} AS held FROM {table} WHERE {column}::text ILIKE :some AND {within}"
    found = session.execute(text(asked), {**given, "some": f"%{_like(old)}%"}).all()
    for row in found:
        changed = renamed(row.held, old, new)
        if changed is not row.held:
            session.execute(
                text(f"UPDATE {table} SET {column} = CAST(:held AS jsonb) WHERE ctid = CAST(:at AS tid)"),
                {"held": json.dumps(changed), "at": row.at},
            )


def _like(name: str) -> str:
    """A name as a pattern that finds it in a JSON text, however many spaces it was written with."""
    parts = json.dumps(" ".join(name.split()), ensure_ascii=False)[1:-1]
    for sign in ("\\", "%", "_"):
        parts = parts.replace(sign, "\\" + sign)
    return parts.replace(" ", "%")


def made_by(session: Session, name: str) -> dict[str, list[str]]:
    """The ids of the rows that name somebody, by their tables."""
    found: dict[str, list[str]] = {}
    for table, columns in _TEXTS.items():
        same = " OR ".join(f"{_AS_COMPARED.format(column)} = :name" for column in columns)
        key = "number::text" if table == "change_made" else "id"
        rows = session.scalars(text(f"SELECT {key} FROM {table} WHERE {same} ORDER BY 1"), {"name": name_key(name)})
        if ids := [str(each) for each in rows]:
            found[table] = ids
    return found
