"""programs that act for people, and accounts of elsewhere"""

import sqlalchemy as sa
from alembic import op
revision = 'd94b7e1c3a58'
down_revision = 'c81e5a2f7d94'
branch_labels = None
depends_on = None

_TIME = sa.DateTime(timezone=True)


def upgrade() -> None:
    op.create_table(
        'program',
        sa.Column('id', sa.String(32), primary_key=True),
        sa.Column('name', sa.Text(), nullable=False),
        sa.Column('address', sa.Text(), nullable=False),
        sa.Column('made_by', sa.Text(), nullable=False),
        sa.Column('made_at', _TIME, nullable=False),
    )
    op.create_table(
        'program_grant',
        sa.Column('id', sa.String(32), primary_key=True),
        sa.Column('program_id', sa.String(32), sa.ForeignKey('program.id', ondelete='CASCADE'), nullable=False),
        sa.Column('person_id', sa.String(32), sa.ForeignKey('person.id', ondelete='CASCADE'), nullable=False),
        sa.Column('scope', sa.String(16), nullable=False),
        sa.Column('made_at', _TIME, nullable=False),
        sa.Column('ends_at', _TIME, nullable=False),
        sa.Column('code_hash', sa.String(64), nullable=False, unique=True),
        sa.Column('code_ends_at', _TIME, nullable=False),
        sa.Column('code_used', sa.Boolean(), nullable=False),
        sa.Column('challenge', sa.Text(), nullable=False),
        sa.Column('redirect_uri', sa.Text(), nullable=False),
        sa.Column('refresh_hash', sa.String(64), unique=True),
        sa.Column('refresh_before', sa.String(64)),
    )
    grant = sa.ForeignKey('program_grant.id', ondelete='CASCADE', name='sign_in_of_grant')
    op.add_column('sign_in', sa.Column('grant_id', sa.String(32), grant))
    op.create_index('sign_ins_of_grant', 'sign_in', ['grant_id'])
    op.create_table(
        'elsewhere_try',
        sa.Column('state_hash', sa.String(64), primary_key=True),
        sa.Column('browser_hash', sa.String(64), nullable=False),
        sa.Column('nonce', sa.Text(), nullable=False),
        sa.Column('verifier', sa.Text(), nullable=False),
        sa.Column('back_to', sa.Text(), nullable=False),
        sa.Column('ends_at', _TIME, nullable=False),
    )
    op.add_column('person', sa.Column('elsewhere', sa.Text(), nullable=False, server_default=''))


def downgrade() -> None:
    op.drop_column('person', 'elsewhere')
    op.drop_table('elsewhere_try')
    op.drop_index('sign_ins_of_grant', 'sign_in')
    op.drop_column('sign_in', 'grant_id')
    op.drop_table('program_grant')
    op.drop_table('program')
