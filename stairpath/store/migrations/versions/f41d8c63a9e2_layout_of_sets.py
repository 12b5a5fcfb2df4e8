"""how a set is listed: what it is grouped by, and what is summed"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql
revision = 'f41d8c63a9e2'
down_revision = 'e27b90c4d1f6'
branch_labels = None
depends_on = None


def upgrade() -> None:
    for name in ('steps', 'sums'):
        op.add_column('component_set', sa.Column(name, postgresql.ARRAY(sa.Text()), nullable=False, server_default='{}'))


def downgrade() -> None:
    for name in ('steps', 'sums'):
        op.drop_column('component_set', name)
