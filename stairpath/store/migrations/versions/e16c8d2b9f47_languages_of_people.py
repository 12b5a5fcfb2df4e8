"""languages of people"""

import sqlalchemy as sa
from alembic import op
revision = 'e16c8d2b9f47'
down_revision = 'd94b7e1c3a58'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column('person', sa.Column('language', sa.Text(), nullable=False, server_default=''))


def downgrade() -> None:
    op.drop_column('person', 'language')
