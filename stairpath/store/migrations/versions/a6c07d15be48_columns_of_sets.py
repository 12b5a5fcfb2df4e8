"""how a set is listed: what is said beside each component"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql
revision = 'a6c07d15be48'
down_revision = 'f41d8c63a9e2'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column('component_set', sa.Column('columns', postgresql.ARRAY(sa.Text()), nullable=False, server_default='{}'))


def downgrade() -> None:
    op.drop_column('component_set', 'columns')
