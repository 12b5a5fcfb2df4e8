"""what files of topics bring: names of viewpoints, related topics, attached files, places"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import ARRAY, JSONB
revision = 'b4c9d0e7f215'
down_revision = 'd2b81c4f6e37'
branch_labels = None
depends_on = None

TIME = sa.DateTime(timezone=True)


def upgrade() -> None:
    op.add_column('viewpoint', sa.Column('guid', sa.String(36)))
    op.execute(
        "UPDATE viewpoint SET guid = concat_ws('-', substr(id, 1, 8), substr(id, 9, 4), substr(id, 13, 4), "
        "substr(id, 17, 4), substr(id, 21, 12))"
    )
    op.alter_column('viewpoint', 'guid', nullable=False)
    op.create_index('viewpoint_guid', 'viewpoint', ['project_id', 'guid'])
    for name in ('related', 'links'):
        op.add_column('topic', sa.Column(name, ARRAY(sa.Text()), nullable=False, server_default='{}'))
    op.add_column('topic', sa.Column('exchanged', JSONB()))
    op.add_column('topic', sa.Column('level', sa.Text(), nullable=False, server_default=''))
    op.add_column('topic', sa.Column('room', sa.Text(), nullable=False, server_default=''))
    op.add_column('topic', sa.Column('at_m', JSONB()))
    op.create_table(
        'topic_file',
        sa.Column('id', sa.String(32), primary_key=True),
        sa.Column('topic_id', sa.String(32), sa.ForeignKey('topic.id', ondelete='CASCADE'), nullable=False),
        sa.Column('guid', sa.String(36), nullable=False),
        sa.Column('name', sa.Text(), nullable=False),
        sa.Column('description', sa.Text(), nullable=False),
        sa.Column('url', sa.Text(), nullable=False),
        sa.Column('sha256', sa.String(64), sa.ForeignKey('blob.sha256')),
        sa.Column('size', sa.BigInteger(), nullable=False),
        sa.Column('author', sa.Text(), nullable=False),
        sa.Column('at', TIME, nullable=False),
        sa.Column('removed_at', TIME),
    )
    op.create_index('file_of_topic', 'topic_file', ['topic_id'])


def downgrade() -> None:
    op.drop_table('topic_file')
    for name in ('at_m', 'room', 'level', 'exchanged', 'links', 'related'):
        op.drop_column('topic', name)
    op.drop_index('viewpoint_guid', 'viewpoint')
    op.drop_column('viewpoint', 'guid')
