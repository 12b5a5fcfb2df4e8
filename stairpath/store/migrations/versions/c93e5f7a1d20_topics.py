"""topics, what was written of them, and who has looked at which"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql
revision = 'c93e5f7a1d20'
down_revision = 'a6c07d15be48'
branch_labels = None
depends_on = None

TIME = sa.DateTime(timezone=True)


def upgrade() -> None:
    op.create_table(
        'topic',
        sa.Column('id', sa.String(32), primary_key=True),
        sa.Column('project_id', sa.String(32), sa.ForeignKey('project.id', ondelete='CASCADE'), nullable=False),
        sa.Column('guid', sa.String(36), nullable=False),
        sa.Column('number', sa.Integer(), nullable=False),
        sa.Column('variant', sa.String(1), nullable=False),
        sa.Column('disciplines', postgresql.ARRAY(sa.Text()), nullable=False),
        sa.Column('said', postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.Column('author', sa.Text(), nullable=False),
        sa.Column('created_at', TIME, nullable=False),
        sa.Column('changed_by', sa.Text(), nullable=False),
        sa.Column('changed_at', TIME, nullable=False),
        sa.Column('removed_at', TIME),
        sa.Column('views', postgresql.ARRAY(sa.String(32)), nullable=False),
        sa.UniqueConstraint('project_id', 'number', 'variant', name='topic_reference'),
        sa.UniqueConstraint('project_id', 'guid', name='topic_guid'),
    )
    op.create_table(
        'topic_note',
        sa.Column('id', sa.String(32), primary_key=True),
        sa.Column('topic_id', sa.String(32), sa.ForeignKey('topic.id', ondelete='CASCADE'), nullable=False),
        sa.Column('guid', sa.String(36), nullable=False),
        sa.Column('author', sa.Text(), nullable=False),
        sa.Column('at', TIME, nullable=False),
        sa.Column('text', sa.Text(), nullable=False),
        sa.Column('view', sa.String(32)),
        sa.Column('changed', postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.Column('removed_at', TIME),
    )
    op.create_index('note_of_topic', 'topic_note', ['topic_id', 'at'])
    op.create_table(
        'topic_look',
        sa.Column('topic_id', sa.String(32), sa.ForeignKey('topic.id', ondelete='CASCADE'), primary_key=True),
        sa.Column('who', sa.Text(), primary_key=True),
        sa.Column('at', TIME, nullable=False),
    )


def downgrade() -> None:
    for name in ('topic_look', 'topic_note', 'topic'):
        op.drop_table(name)
