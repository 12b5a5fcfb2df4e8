"""people who sign in"""

import sqlalchemy as sa
from alembic import op
revision = 'd7b3f19e4c52'
down_revision = 'c5e8a1d70f36'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        'person',
        sa.Column('id', sa.String(32), primary_key=True),
        sa.Column('key', sa.Text(), nullable=False, unique=True),
        sa.Column('name', sa.Text(), nullable=False),
        sa.Column('firm', sa.Text(), server_default='', nullable=False),
        sa.Column('discipline', sa.Text(), server_default='', nullable=False),
        sa.Column('password', sa.Text()),
        sa.Column('owner', sa.Boolean(), server_default='false', nullable=False),
        sa.Column('created_at', sa.DateTime(timezone=True), nullable=False),
    )
    op.create_table(
        'sign_in',
        sa.Column('id', sa.String(32), primary_key=True),
        sa.Column('person_id', sa.String(32), sa.ForeignKey('person.id', ondelete='CASCADE'), nullable=False),
        sa.Column('secret_hash', sa.String(64), nullable=False, unique=True),
        sa.Column('made_at', sa.DateTime(timezone=True), nullable=False),
        sa.Column('used_at', sa.DateTime(timezone=True), nullable=False),
        sa.Column('ends_at', sa.DateTime(timezone=True), nullable=False),
        sa.Column('address', sa.Text(), server_default='', nullable=False),
        sa.Column('browser', sa.Text(), server_default='', nullable=False),
    )
    op.create_index('sign_ins_of_person', 'sign_in', ['person_id'])
    op.create_table(
        'one_time_link',
        sa.Column('id', sa.String(32), primary_key=True),
        sa.Column('kind', sa.Text(), nullable=False),
        sa.Column('secret_hash', sa.String(64), nullable=False, unique=True),
        sa.Column('person_id', sa.String(32), sa.ForeignKey('person.id', ondelete='CASCADE')),
        sa.Column('made_at', sa.DateTime(timezone=True), nullable=False),
        sa.Column('ends_at', sa.DateTime(timezone=True), nullable=False),
        sa.Column('used_at', sa.DateTime(timezone=True)),
    )


def downgrade() -> None:
    op.drop_table('one_time_link')
    op.drop_table('sign_in')
    op.drop_table('person')
