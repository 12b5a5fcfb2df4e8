"""history of what people edit"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB
revision = 'a7d2f60b93c4'
down_revision = 'e4a0c97b2d61'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        'change_made',
        sa.Column('number', sa.BigInteger(), sa.Identity(), primary_key=True),
        sa.Column('project_id', sa.String(32), sa.ForeignKey('project.id', ondelete='CASCADE'), nullable=False),
        sa.Column('kind', sa.Text(), nullable=False),
        sa.Column('thing_id', sa.String(32), nullable=False),
        sa.Column('whole_id', sa.String(32)),
        sa.Column('at', sa.DateTime(timezone=True), nullable=False),
        sa.Column('author', sa.Text(), nullable=False),
        sa.Column('fields', JSONB(), nullable=False),
    )
    op.create_index('changes_of_thing', 'change_made', ['thing_id', 'number'])
    op.create_index('changes_of_parts', 'change_made', ['whole_id', 'number'])


def downgrade() -> None:
    op.drop_table('change_made')
