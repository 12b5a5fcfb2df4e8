"""who is in which project, and guest links"""

import sqlalchemy as sa
from alembic import op
revision = 'b92e5d07c1f4'
down_revision = 'a1f7c94e2b60'
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column('person', sa.Column('makes_projects', sa.Boolean(), server_default='false', nullable=False))
    op.add_column('person', sa.Column('firm_key', sa.Text(), server_default='', nullable=False))
    op.create_table(
        'member',
        sa.Column('id', sa.String(32), primary_key=True),
        sa.Column('project_id', sa.String(32), sa.ForeignKey('project.id', ondelete='CASCADE'), nullable=False),
        sa.Column('kind', sa.String(16), nullable=False),
        sa.Column('subject', sa.Text(), nullable=False),
        sa.Column('label', sa.Text(), server_default='', nullable=False),
        sa.Column('role', sa.String(16), nullable=False),
        sa.Column('added_by', sa.Text(), nullable=False),
        sa.Column('added_at', sa.DateTime(timezone=True), nullable=False),
        sa.UniqueConstraint('project_id', 'kind', 'subject', name='member_once'),
    )
    op.create_index('projects_of_member', 'member', ['kind', 'subject'])
    op.create_table(
        'guest_link',
        sa.Column('id', sa.String(32), primary_key=True),
        sa.Column('project_id', sa.String(32), sa.ForeignKey('project.id', ondelete='CASCADE'), nullable=False),
        sa.Column('name', sa.Text(), nullable=False),
        sa.Column('secret_hash', sa.String(64), nullable=False, unique=True),
        sa.Column('made_by', sa.Text(), nullable=False),
        sa.Column('made_at', sa.DateTime(timezone=True), nullable=False),
        sa.Column('ends_at', sa.DateTime(timezone=True), nullable=False),
        sa.Column('used_at', sa.DateTime(timezone=True)),
    )
    op.create_index('guest_links_of_project', 'guest_link', ['project_id'])
    op.alter_column('sign_in', 'person_id', nullable=True)
    op.add_column('sign_in', sa.Column('guest_id', sa.String(32), sa.ForeignKey('guest_link.id', ondelete='CASCADE')))
    op.create_index('sign_ins_of_guest', 'sign_in', ['guest_id'])
    # Where people sign in already, those who own the server own what there is: somebody has to let the others in.
    op.execute("""
        INSERT INTO member (id, project_id, kind, subject, label, role, added_by, added_at)
        SELECT replace(gen_random_uuid()::text, '-', ''), project.id, 'person', person.id, person.name, 'own', person.name, now()
        FROM project, person WHERE person.owner
    """)


def downgrade() -> None:
    op.execute("DELETE FROM sign_in WHERE person_id IS NULL")
    op.drop_column('sign_in', 'guest_id')
    op.alter_column('sign_in', 'person_id', nullable=False)
    op.drop_table('guest_link')
    op.drop_table('member')
    op.drop_column('person', 'firm_key')
    op.drop_column('person', 'makes_projects')
