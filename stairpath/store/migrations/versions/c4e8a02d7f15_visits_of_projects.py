"""when somebody was first and last in a project"""

import sqlalchemy as sa
from alembic import op
revision = 'c4e8a02d7f15'
down_revision = 'b7d2e51f9a06'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        'project_visit',
        sa.Column('project_id', sa.String(32), sa.ForeignKey('project.id', ondelete='CASCADE'), primary_key=True),
        sa.Column('who', sa.Text(), primary_key=True),
        sa.Column('first_at', sa.DateTime(timezone=True), nullable=False),
        sa.Column('last_at', sa.DateTime(timezone=True), nullable=False),
    )
    # Who looked at a topic or at viewpoints was there.
    op.execute(
        'INSERT INTO project_visit (project_id, who, first_at, last_at) '
        'SELECT project_id, who, min(at), max(at) FROM ('
        'SELECT topic.project_id, topic_look.who, topic_look.at FROM topic_look JOIN topic ON topic.id = topic_look.topic_id '
        'UNION ALL SELECT project_id, who, at FROM viewpoint_look) AS looks GROUP BY project_id, who'
    )


def downgrade() -> None:
    op.drop_table('project_visit')
