"""folders of viewpoints, and their order"""

import sqlalchemy as sa
from alembic import op
revision = 'd2b81c4f6e37'
down_revision = 'c93e5f7a1d20'
branch_labels = None
depends_on = None

TIME = sa.DateTime(timezone=True)


def upgrade() -> None:
    op.create_table(
        'folder',
        sa.Column('id', sa.String(32), primary_key=True),
        sa.Column('project_id', sa.String(32), sa.ForeignKey('project.id', ondelete='CASCADE'), nullable=False),
        sa.Column('name', sa.Text(), nullable=False),
        sa.Column('author', sa.Text(), nullable=False),
        sa.Column('created_at', TIME, nullable=False),
        sa.Column('removed_at', TIME),
        sa.Column('place', sa.Integer(), nullable=False),
    )
    op.create_index('folder_of_project', 'folder', ['project_id', 'place'])
    op.add_column('viewpoint', sa.Column('folder', sa.String(32), sa.ForeignKey('folder.id', ondelete='SET NULL')))
    op.add_column('viewpoint', sa.Column('place', sa.Integer(), nullable=False, server_default='0'))


def downgrade() -> None:
    op.drop_column('viewpoint', 'place')
    op.drop_column('viewpoint', 'folder')
    op.drop_table('folder')
