"""whose hand is the latest on a topic here, and since when"""

import sqlalchemy as sa
from alembic import op
revision = 'd91b6c3e5a20'
down_revision = 'c4e8a02d7f15'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column('topic', sa.Column('news_by', sa.Text(), nullable=True))
    op.add_column('topic', sa.Column('news_at', sa.DateTime(timezone=True), nullable=True))
    op.execute('UPDATE topic SET news_by = changed_by, news_at = changed_at')
    op.alter_column('topic', 'news_by', nullable=False)
    op.alter_column('topic', 'news_at', nullable=False)


def downgrade() -> None:
    op.drop_column('topic', 'news_at')
    op.drop_column('topic', 'news_by')
