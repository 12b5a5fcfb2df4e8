"""meetings and tasks are called what people call them"""

from alembic import op

revision = 'e81f4c0a7d36'
down_revision = 'b9e3f7a1c6d4'
branch_labels = None
depends_on = None

TABLES = {'sitting': 'meeting', 'sitting_point': 'meeting_point', 'errand': 'task'}
INDEXES = {
    'sitting_of_project': 'meeting_of_project',
    'point_of_sitting': 'point_of_meeting',
    'errand_of_project': 'task_of_project',
}


def _rename(tables: dict[str, str], indexes: dict[str, str]) -> None:
    for old, new in tables.items():
        op.rename_table(old, new)
    for old, new in indexes.items():
        op.execute(f'ALTER INDEX {old} RENAME TO {new}')


def upgrade() -> None:
    _rename(TABLES, INDEXES)
    op.alter_column('meeting_point', 'sitting_id', new_column_name='meeting_id')


def downgrade() -> None:
    op.alter_column('meeting_point', 'meeting_id', new_column_name='sitting_id')
    _rename({new: old for old, new in TABLES.items()}, {new: old for old, new in INDEXES.items()})
