"""home of a project"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql
revision = '8c2f04d1b7aa'
down_revision = '6f1eaade3528'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column('project', sa.Column('home', postgresql.JSONB(astext_type=sa.Text()), nullable=True))


def downgrade() -> None:
    op.drop_column('project', 'home')
