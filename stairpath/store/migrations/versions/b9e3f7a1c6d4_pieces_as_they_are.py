"""pieces of bytes are kept as they are: what is in them is packed already"""

from alembic import op
revision = 'b9e3f7a1c6d4'
down_revision = 'a7c2e5f90b31'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.execute('ALTER TABLE blob_piece ALTER COLUMN data SET STORAGE EXTERNAL')


def downgrade() -> None:
    op.execute('ALTER TABLE blob_piece ALTER COLUMN data SET STORAGE EXTENDED')
