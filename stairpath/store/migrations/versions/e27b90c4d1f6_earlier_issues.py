"""earlier issues of models, to be compared with the present one"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql
revision = 'e27b90c4d1f6'
down_revision = 'd15a7c3e9b84'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        'earlier_issue',
        sa.Column('id', sa.String(32), primary_key=True),
        sa.Column('model_id', sa.String(32), sa.ForeignKey('model.id', ondelete='CASCADE'), nullable=False),
        sa.Column('file_name', sa.Text(), nullable=False),
        sa.Column('file_sha', sa.String(64), sa.ForeignKey('blob.sha256'), nullable=False),
        sa.Column('added_by', sa.Text(), nullable=False),
        sa.Column('added_at', sa.DateTime(timezone=True), nullable=False),
        sa.Column('components', sa.Integer(), nullable=False),
        sa.Column('geometry', sa.String(64), sa.ForeignKey('blob.sha256'), nullable=False),
        sa.Column('listing', sa.String(64), sa.ForeignKey('blob.sha256'), nullable=False),
        sa.Column('matrix', postgresql.JSONB(astext_type=sa.Text())),
    )
    op.create_index('issue_of_model', 'earlier_issue', ['model_id', 'added_at'])


def downgrade() -> None:
    op.drop_table('earlier_issue')
