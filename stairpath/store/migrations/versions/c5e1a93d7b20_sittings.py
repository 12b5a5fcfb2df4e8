"""meetings as they are held"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import ARRAY
revision = 'c5e1a93d7b20'
down_revision = 'b4c9d0e7f215'
branch_labels = None
depends_on = None

TIME = sa.DateTime(timezone=True)


def upgrade() -> None:
    op.create_table(
        'sitting',
        sa.Column('id', sa.String(32), primary_key=True),
        sa.Column('project_id', sa.String(32), sa.ForeignKey('project.id', ondelete='CASCADE'), nullable=False),
        sa.Column('title', sa.Text(), nullable=False),
        sa.Column('held_on', sa.Date(), nullable=False),
        sa.Column('author', sa.Text(), nullable=False),
        sa.Column('started_at', TIME, nullable=False),
        sa.Column('ended_at', TIME),
        sa.Column('removed_at', TIME),
        sa.Column('present', ARRAY(sa.Text()), nullable=False),
        sa.Column('topics', ARRAY(sa.String(32)), nullable=False),
        sa.Column('whys', ARRAY(sa.Text()), nullable=False),
        sa.Column('folder', sa.String(32), sa.ForeignKey('folder.id', ondelete='SET NULL')),
    )
    op.create_index('sitting_of_project', 'sitting', ['project_id', 'started_at'])
    op.create_table(
        'sitting_point',
        sa.Column('id', sa.String(32), primary_key=True),
        sa.Column('sitting_id', sa.String(32), sa.ForeignKey('sitting.id', ondelete='CASCADE'), nullable=False),
        sa.Column('topic_id', sa.String(32), sa.ForeignKey('topic.id', ondelete='CASCADE'), nullable=False),
        sa.Column('text', sa.Text(), nullable=False),
        sa.Column('decision', sa.Boolean(), nullable=False),
        sa.Column('who', sa.Text(), nullable=False),
        sa.Column('until', sa.Date()),
        sa.Column('view', sa.String(32)),
        sa.Column('author', sa.Text(), nullable=False),
        sa.Column('at', TIME, nullable=False),
        sa.Column('removed_at', TIME),
    )
    op.create_index('point_of_sitting', 'sitting_point', ['sitting_id', 'at'])


def downgrade() -> None:
    op.drop_table('sitting_point')
    op.drop_table('sitting')
