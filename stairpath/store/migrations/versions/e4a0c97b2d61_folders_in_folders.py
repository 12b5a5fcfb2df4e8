"""folders in folders"""

import sqlalchemy as sa
from alembic import op
revision = 'e4a0c97b2d61'
down_revision = 'd91b6c3e5a20'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column('folder', sa.Column('within', sa.String(32), sa.ForeignKey('folder.id', ondelete='SET NULL'), nullable=True))


def downgrade() -> None:
    op.drop_column('folder', 'within')
