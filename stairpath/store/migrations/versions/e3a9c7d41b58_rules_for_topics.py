"""rules for topics"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB
revision = 'e3a9c7d41b58'
down_revision = 'd8f2b6e41a07'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column('project', sa.Column('topic_rules', JSONB()))


def downgrade() -> None:
    op.drop_column('project', 'topic_rules')
