"""a view is one document with rules, in project coordinates; views that addresses name; what rules ask of components"""

import json

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

from stairpath.store.documents import older_home, older_view
revision = 'b83f6d2a9c14'
down_revision = 'a41c7be20d95'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        'link',
        sa.Column('project_id', sa.String(32), sa.ForeignKey('project.id', ondelete='CASCADE'), primary_key=True),
        sa.Column('id', sa.String(16), primary_key=True),
        sa.Column('view', postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.Column('made_at', sa.DateTime(timezone=True), nullable=False),
    )
    connection = op.get_bind()
    for table, column, older in (('viewpoint', 'view', older_view), ('project', 'home', older_home)):
        rows = connection.execute(sa.text(f'SELECT id, {column} FROM {table} WHERE {column} IS NOT NULL')).all()
        for key, kept in rows:
            connection.execute(
                sa.text(f'UPDATE {table} SET {column} = CAST(:kept AS jsonb) WHERE id = :key'),
                {'kept': json.dumps(older(kept)), 'key': key},
            )
    # A file is read again where what rules ask of its components is not kept yet.
    op.execute("UPDATE model SET status = 'waiting', share = 0, message = '' "
               "WHERE geometry IS NOT NULL AND removed_at IS NULL AND status <> 'reading'")


def downgrade() -> None:
    op.drop_table('link')
