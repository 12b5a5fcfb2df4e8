"""whose names of files are"""

import sqlalchemy as sa
from alembic import op
revision = 'c81e5a2f7d94'
down_revision = 'b27d4e9f1c63'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        'known_name',
        sa.Column('project_id', sa.String(32), sa.ForeignKey('project.id', ondelete='CASCADE'), primary_key=True),
        sa.Column('key', sa.Text(), primary_key=True),
        sa.Column('name', sa.Text(), nullable=False),
        sa.Column('person_id', sa.String(32), sa.ForeignKey('person.id', ondelete='CASCADE'), nullable=False),
        sa.Column('said_by', sa.Text(), nullable=False),
        sa.Column('at', sa.DateTime(timezone=True), nullable=False),
    )


def downgrade() -> None:
    op.drop_table('known_name')
