"""routes that were kept, in the coordinates of the project instead of about its origin"""

import json
from typing import Any

import sqlalchemy as sa
from alembic import op
revision = '51b0e4c8d9f3'
down_revision = '3d5c9a7f2e10'
branch_labels = None
depends_on = None

POINTS = ("at_m", "nearest_m", "point_m")


def moved(value: Any, by: list[float]) -> Any:
    if isinstance(value, list):
        return [moved(each, by) for each in value]
    if not isinstance(value, dict):
        return value
    out = {key: moved(each, by) for key, each in value.items()}
    for key in POINTS:
        if value.get(key):
            out[key] = [round(a + b, 4) for a, b in zip(value[key], by)]
    if "points_m" in value:
        out["points_m"] = [[round(a + b, 4) for a, b in zip(point, by)] for point in value["points_m"]]
    return out


def move(sign: int) -> None:
    connection = op.get_bind()
    rows = connection.execute(sa.text(
        "SELECT r.id, r.wish, r.answer, p.federation->'origin_m' FROM saved_route r JOIN project p ON p.id = r.project_id"
    )).all()
    for key, wish, answer, origin in rows:
        by = [sign * value for value in origin or [0, 0, 0]]
        connection.execute(
            sa.text("UPDATE saved_route SET wish = CAST(:wish AS jsonb), answer = CAST(:answer AS jsonb) WHERE id = :id"),
            {"id": key, "wish": json.dumps(moved(wish, by)), "answer": json.dumps(moved(answer, by))},
        )


def upgrade() -> None:
    move(1)


def downgrade() -> None:
    move(-1)
