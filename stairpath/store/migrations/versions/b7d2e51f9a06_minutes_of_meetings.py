"""who was absent from a meeting, its hours, and when the next one is"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import ARRAY
revision = 'b7d2e51f9a06'
down_revision = 'e81f4c0a7d36'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column('meeting', sa.Column('absent', ARRAY(sa.Text()), server_default='{}', nullable=False))
    op.add_column('meeting', sa.Column('from_time', sa.Time()))
    op.add_column('meeting', sa.Column('to_time', sa.Time()))
    op.add_column('meeting', sa.Column('next_on', sa.Date()))
    op.add_column('meeting', sa.Column('next_time', sa.Time()))


def downgrade() -> None:
    for name in ('absent', 'from_time', 'to_time', 'next_on', 'next_time'):
        op.drop_column('meeting', name)
