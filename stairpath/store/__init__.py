"""SQLAlchemy tables and queries, Alembic migrations."""
