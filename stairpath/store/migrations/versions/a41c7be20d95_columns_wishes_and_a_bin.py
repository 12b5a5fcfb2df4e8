"""what is per component in columns by hash; what a federation is wanted for; a bin for projects; alignment by hand"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql
revision = 'a41c7be20d95'
down_revision = '51b0e4c8d9f3'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column('project', sa.Column('removed_at', sa.DateTime(timezone=True), nullable=True))
    op.add_column('project', sa.Column('begun', sa.Boolean(), nullable=False, server_default=sa.true()))
    op.add_column('project', sa.Column('wanted', sa.Integer(), nullable=False, server_default='0'))
    op.add_column('project', sa.Column('made', sa.Integer(), nullable=False, server_default='0'))
    op.add_column('project', sa.Column('making', sa.Float(), nullable=True))
    op.add_column('project', sa.Column('trouble', sa.Text(), nullable=False, server_default=''))
    op.add_column('model', sa.Column('placement', postgresql.JSONB(astext_type=sa.Text()), nullable=True))
    for column in ('level', 'discipline', 'room', 'bounds_m'):
        op.drop_column('component', column)
    # A file is read again where what it gave each component is not kept as columns yet.
    op.execute("UPDATE model SET status = 'waiting', share = 0, message = '' "
               "WHERE geometry IS NOT NULL AND removed_at IS NULL AND status <> 'reading'")


def downgrade() -> None:
    op.add_column('component', sa.Column('bounds_m', sa.ARRAY(sa.Double()), nullable=True))
    for column in ('room', 'discipline', 'level'):
        op.add_column('component', sa.Column(column, sa.Integer(), nullable=True))
    op.drop_column('model', 'placement')
    for column in ('trouble', 'making', 'made', 'wanted', 'begun', 'removed_at'):
        op.drop_column('project', column)
