"""questions to designers"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB
revision = 'a7c2e5f90b31'
down_revision = 'f4b1d80c2e69'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column('topic', sa.Column('question', JSONB()))


def downgrade() -> None:
    op.drop_column('topic', 'question')
