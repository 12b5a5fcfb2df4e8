"""sets: components found by conditions"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql
revision = 'd15a7c3e9b84'
down_revision = 'c94e1a7f3b52'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        'component_set',
        sa.Column('id', sa.String(32), primary_key=True),
        sa.Column('project_id', sa.String(32), sa.ForeignKey('project.id', ondelete='CASCADE'), nullable=False),
        sa.Column('name', sa.Text(), nullable=False),
        sa.Column('author', sa.Text(), nullable=False),
        sa.Column('created_at', sa.DateTime(timezone=True), nullable=False),
        sa.Column('removed_at', sa.DateTime(timezone=True)),
        sa.Column('conditions', postgresql.JSONB(astext_type=sa.Text()), nullable=False),
    )
    op.create_index('set_of_project', 'component_set', ['project_id', 'created_at'])


def downgrade() -> None:
    op.drop_table('component_set')
