"""for whom a task runs"""

import sqlalchemy as sa
from alembic import op
revision = 'e7c2094fa1b5'
down_revision = 'd4b91f63ac08'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column('task', sa.Column('asked_by', sa.String(32)))


def downgrade() -> None:
    op.drop_column('task', 'asked_by')
