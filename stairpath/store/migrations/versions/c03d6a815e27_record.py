"""the record"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB
revision = 'c03d6a815e27'
down_revision = 'b92e5d07c1f4'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        'record_entry',
        sa.Column('chain', sa.String(32), primary_key=True),
        sa.Column('number', sa.BigInteger(), primary_key=True, autoincrement=False),
        sa.Column('at', sa.DateTime(timezone=True), nullable=False),
        sa.Column('who', sa.Text(), nullable=False),
        sa.Column('person_id', sa.String(32)),
        sa.Column('address', sa.Text(), nullable=False),
        sa.Column('browser', sa.Text(), nullable=False),
        sa.Column('token', sa.Text(), nullable=False),
        sa.Column('action', sa.Text(), nullable=False),
        sa.Column('kind', sa.Text(), nullable=False),
        sa.Column('thing_id', sa.Text(), nullable=False),
        sa.Column('title', sa.Text(), nullable=False),
        sa.Column('fields', JSONB(), nullable=False),
        sa.Column('hash', sa.String(64), nullable=False),
    )
    op.create_index('record_by_time', 'record_entry', ['chain', 'at'])
    op.create_index('record_of_thing', 'record_entry', ['chain', 'thing_id'])
    op.create_table(
        'record_head',
        sa.Column('chain', sa.String(32), primary_key=True),
        sa.Column('number', sa.BigInteger(), nullable=False),
        sa.Column('hash', sa.String(64), nullable=False),
    )


def downgrade() -> None:
    op.drop_table('record_head')
    op.drop_table('record_entry')
