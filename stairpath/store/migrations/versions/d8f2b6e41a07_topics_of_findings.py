"""topics of findings"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB
revision = 'd8f2b6e41a07'
down_revision = 'c5e1a93d7b20'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column('topic', sa.Column('finding', JSONB()))


def downgrade() -> None:
    op.drop_column('topic', 'finding')
