"""tokens of other programs"""

import sqlalchemy as sa
from alembic import op
revision = 'd4b91f63ac08'
down_revision = 'c03d6a815e27'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column('sign_in', sa.Column('token', sa.Text(), server_default='', nullable=False))
    op.add_column('sign_in', sa.Column('scope', sa.String(16)))


def downgrade() -> None:
    op.execute("DELETE FROM sign_in WHERE scope IS NOT NULL")
    op.drop_column('sign_in', 'scope')
    op.drop_column('sign_in', 'token')
