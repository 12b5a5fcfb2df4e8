"""the two components that a topic is about"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import ARRAY
revision = 'c5e8a1d70f36'
down_revision = 'a7d2f60b93c4'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column('topic', sa.Column('picked_pair', ARRAY(sa.Text()), server_default='{}', nullable=False))
    op.execute("""
        UPDATE topic SET picked_pair = picked.ids FROM (
            SELECT viewpoint.id, array_agg(DISTINCT each.id) AS ids
            FROM viewpoint, jsonb_each(viewpoint.view -> 'picked' -> 'of') AS model, jsonb_array_elements_text(model.value) AS each(id)
            WHERE jsonb_typeof(viewpoint.view -> 'picked' -> 'of') = 'object'
            GROUP BY viewpoint.id
        ) AS picked
        WHERE picked.id = topic.views[1] AND cardinality(picked.ids) = 2
    """)


def downgrade() -> None:
    op.drop_column('topic', 'picked_pair')
