"""walking: tiles of the walk map, what counts for it, and routes that were kept"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql
revision = '3d5c9a7f2e10'
down_revision = '8c2f04d1b7aa'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column('project', sa.Column('walking', postgresql.JSONB(astext_type=sa.Text()), nullable=True))
    op.create_table('walk_tile',
    sa.Column('project_id', sa.String(length=32), nullable=False),
    sa.Column('body', sa.Text(), nullable=False),
    sa.Column('x', sa.Integer(), nullable=False),
    sa.Column('y', sa.Integer(), nullable=False),
    sa.Column('made_of', sa.String(length=32), nullable=False),
    sa.Column('sha256', sa.String(length=64), nullable=False),
    sa.Column('size', sa.Integer(), nullable=False),
    sa.ForeignKeyConstraint(['project_id'], ['project.id'], ondelete='CASCADE'),
    sa.ForeignKeyConstraint(['sha256'], ['blob.sha256']),
    sa.PrimaryKeyConstraint('project_id', 'body', 'x', 'y')
    )
    op.create_table('saved_route',
    sa.Column('id', sa.String(length=32), nullable=False),
    sa.Column('project_id', sa.String(length=32), nullable=False),
    sa.Column('name', sa.Text(), nullable=False),
    sa.Column('author', sa.Text(), nullable=False),
    sa.Column('created_at', sa.DateTime(timezone=True), nullable=False),
    sa.Column('removed_at', sa.DateTime(timezone=True), nullable=True),
    sa.Column('wish', postgresql.JSONB(astext_type=sa.Text()), nullable=False),
    sa.Column('answer', postgresql.JSONB(astext_type=sa.Text()), nullable=False),
    sa.ForeignKeyConstraint(['project_id'], ['project.id'], ondelete='CASCADE'),
    sa.PrimaryKeyConstraint('id')
    )
    op.create_index('route_of_project', 'saved_route', ['project_id', 'created_at'], unique=False)


def downgrade() -> None:
    op.drop_index('route_of_project', table_name='saved_route')
    op.drop_table('saved_route')
    op.drop_table('walk_tile')
    op.drop_column('project', 'walking')
