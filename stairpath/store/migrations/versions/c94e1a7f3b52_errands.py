"""errands: checks for interference and sheets that are made by jobs"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql
revision = 'c94e1a7f3b52'
down_revision = 'b83f6d2a9c14'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        'errand',
        sa.Column('id', sa.String(32), primary_key=True),
        sa.Column('project_id', sa.String(32), sa.ForeignKey('project.id', ondelete='CASCADE'), nullable=False),
        sa.Column('name', sa.Text(), nullable=False),
        sa.Column('author', sa.Text(), nullable=False),
        sa.Column('created_at', sa.DateTime(timezone=True), nullable=False),
        sa.Column('removed_at', sa.DateTime(timezone=True)),
        sa.Column('wish', postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.Column('status', sa.String(16), nullable=False),
        sa.Column('share', sa.Float(), nullable=False),
        sa.Column('message', sa.Text(), nullable=False),
        sa.Column('stop', sa.Boolean(), nullable=False),
        sa.Column('asked', sa.Integer(), nullable=False),
        sa.Column('made', sa.Integer(), nullable=False),
        sa.Column('made_for', sa.Integer()),
        sa.Column('made_at', sa.DateTime(timezone=True)),
        sa.Column('results', postgresql.JSONB(astext_type=sa.Text()), nullable=False),
    )
    op.create_index('errand_of_project', 'errand', ['project_id', 'created_at'])


def downgrade() -> None:
    op.drop_table('errand')
