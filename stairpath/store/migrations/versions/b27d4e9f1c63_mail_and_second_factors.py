"""mail, second factors, and what people set of themselves"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import ARRAY
revision = 'b27d4e9f1c63'
down_revision = 'a19f3c7d5e02'
branch_labels = None
depends_on = None

_TEXTS = ('initials', 'colour', 'units', 'code_secret')


def upgrade() -> None:
    op.create_table(
        'mail',
        sa.Column('id', sa.String(), primary_key=True),
        sa.Column('recipient', sa.Text(), nullable=False),
        sa.Column('subject', sa.Text(), nullable=False),
        sa.Column('text', sa.Text(), nullable=False),
        sa.Column('made_at', sa.DateTime(timezone=True), nullable=False),
        sa.Column('sent_at', sa.DateTime(timezone=True)),
        sa.Column('tries', sa.Integer(), nullable=False),
        sa.Column('next_at', sa.DateTime(timezone=True), nullable=False),
        sa.Column('trouble', sa.Text(), nullable=False),
    )
    for name in _TEXTS:
        op.add_column('person', sa.Column(name, sa.Text(), nullable=False, server_default=''))
    op.add_column('person', sa.Column('code_on', sa.Boolean(), nullable=False, server_default='false'))
    op.add_column('person', sa.Column('code_step', sa.BigInteger(), nullable=False, server_default='0'))
    op.add_column('person', sa.Column('recovery', ARRAY(sa.Text()), nullable=False, server_default='{}'))


def downgrade() -> None:
    for name in ('recovery', 'code_step', 'code_on', *reversed(_TEXTS)):
        op.drop_column('person', name)
    op.drop_table('mail')
