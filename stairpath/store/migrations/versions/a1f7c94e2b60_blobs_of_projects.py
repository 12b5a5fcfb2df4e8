"""which project was given which bytes"""

import sqlalchemy as sa
from alembic import op
revision = 'a1f7c94e2b60'
down_revision = 'd7b3f19e4c52'
branch_labels = None
depends_on = None

_OF_MODEL = "SELECT m.project_id, {hash} FROM model m"
_KEPT = (
    "SELECT id, picture FROM project",
    "SELECT p.id, level->>'plan' FROM project p, jsonb_path_query(p.federation, '$.levels[*]') level",
    _OF_MODEL.format(hash="m.file_sha"),
    _OF_MODEL.format(hash="m.geometry"),
    _OF_MODEL.format(hash="m.frame->>'columns'"),
    _OF_MODEL.format(hash="m.frame->>'sorts'"),
    _OF_MODEL.format(hash="m.frame->>'traits'"),
    _OF_MODEL.format(hash="m.placed->>'columns'"),
    _OF_MODEL.format(hash="m.placed->>'boxes'"),
    _OF_MODEL.format(hash="c.sha256") + " JOIN chunk c ON c.model_id = m.id",
    _OF_MODEL.format(hash="i.file_sha") + " JOIN earlier_issue i ON i.model_id = m.id",
    _OF_MODEL.format(hash="i.geometry") + " JOIN earlier_issue i ON i.model_id = m.id",
    _OF_MODEL.format(hash="i.listing") + " JOIN earlier_issue i ON i.model_id = m.id",
    "SELECT project_id, picture FROM viewpoint",
    "SELECT project_id, large FROM viewpoint",
    "SELECT v.project_id, b.picture FROM viewpoint_before b JOIN viewpoint v ON v.id = b.viewpoint_id",
    "SELECT v.project_id, b.large FROM viewpoint_before b JOIN viewpoint v ON v.id = b.viewpoint_id",
    "SELECT v.project_id, p->>'sha256' FROM viewpoint v, jsonb_path_query(v.view, '$.pictures[*]') p",
    "SELECT v.project_id, p->>'sha256' FROM viewpoint_before b JOIN viewpoint v ON v.id = b.viewpoint_id,"
    " jsonb_path_query(b.view, '$.pictures[*]') p",
    "SELECT project_id, sha256 FROM walk_tile",
    "SELECT t.project_id, f.sha256 FROM topic_file f JOIN topic t ON t.id = f.topic_id",
    "SELECT t.project_id, r.value FROM task t, jsonb_each_text(t.results) r",
    "SELECT project_id, wish->>'file' FROM task",
)
"""Project and hash, wherever rows hold one."""


def upgrade() -> None:
    op.create_table(
        'project_blob',
        sa.Column('project_id', sa.String(32), primary_key=True),
        sa.Column('sha256', sa.String(64), sa.ForeignKey('blob.sha256', ondelete='CASCADE'), primary_key=True),
    )
    op.create_index('ix_project_blob_sha256', 'project_blob', ['sha256'])
    for of_project in _KEPT:
        op.execute(
            "INSERT INTO project_blob (project_id, sha256)"
            f" SELECT DISTINCT k.project_id, k.sha256 FROM ({of_project}) AS k(project_id, sha256)"
            " JOIN blob ON blob.sha256 = k.sha256 ON CONFLICT DO NOTHING"
        )


def downgrade() -> None:
    op.drop_table('project_blob')
