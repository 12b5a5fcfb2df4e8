"""standing views, views kept over, and which are new"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB
revision = 'f4b1d80c2e69'
down_revision = 'e3a9c7d41b58'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column('viewpoint', sa.Column('standing', sa.Text()))
    op.add_column('viewpoint', sa.Column('digest', sa.String(64)))
    op.add_column('viewpoint', sa.Column('undrawn', sa.Boolean(), server_default='false', nullable=False))
    op.add_column('viewpoint', sa.Column('large', sa.String(64), sa.ForeignKey('blob.sha256')))
    op.add_column('viewpoint', sa.Column('changed_by', sa.Text(), server_default='', nullable=False))
    op.add_column('viewpoint', sa.Column('changed_at', sa.DateTime(timezone=True), server_default=sa.text('now()')))
    op.execute('UPDATE viewpoint SET changed_by = author, changed_at = created_at')
    op.alter_column('viewpoint', 'changed_at', nullable=False)
    op.create_table(
        'viewpoint_before',
        sa.Column('id', sa.String(32), primary_key=True),
        sa.Column('viewpoint_id', sa.String(32), sa.ForeignKey('viewpoint.id', ondelete='CASCADE'), nullable=False),
        sa.Column('at', sa.DateTime(timezone=True), nullable=False),
        sa.Column('changed_by', sa.Text(), nullable=False),
        sa.Column('picture', sa.String(64), sa.ForeignKey('blob.sha256'), nullable=False),
        sa.Column('large', sa.String(64), sa.ForeignKey('blob.sha256')),
        sa.Column('view', JSONB(), nullable=False),
    )
    op.create_index('before_of_viewpoint', 'viewpoint_before', ['viewpoint_id', 'at'])
    op.create_table(
        'viewpoint_look',
        sa.Column('project_id', sa.String(32), sa.ForeignKey('project.id', ondelete='CASCADE'), primary_key=True),
        sa.Column('who', sa.Text(), primary_key=True),
        sa.Column('at', sa.DateTime(timezone=True), nullable=False),
    )


def downgrade() -> None:
    op.drop_table('viewpoint_look')
    op.drop_table('viewpoint_before')
    for name in ('standing', 'digest', 'undrawn', 'large', 'changed_by', 'changed_at'):
        op.drop_column('viewpoint', name)
