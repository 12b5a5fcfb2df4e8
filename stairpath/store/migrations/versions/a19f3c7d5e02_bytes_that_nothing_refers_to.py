"""bytes that nothing refers to, and limits of a project"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB
revision = 'a19f3c7d5e02'
down_revision = 'e7c2094fa1b5'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column('blob', sa.Column('unused_since', sa.DateTime(timezone=True)))
    op.add_column('project', sa.Column('limits', JSONB()))


def downgrade() -> None:
    op.drop_column('project', 'limits')
    op.drop_column('blob', 'unused_since')
