"""A line's second ink and its own arrangement, a page's palette, and the arrangements pinned to a brush."""

import sqlalchemy as sa
from alembic import op

DYES = (
    '[{"name": "madder", "colour": "#a63a2f"}, {"name": "indigo", "colour": "#2c4a84"}, {"name": "weld", "colour": "#c9971c"}, '
    '{"name": "woad green", "colour": "#3f7150"}, {"name": "walnut", "colour": "#5a4027"}, {"name": "loden", "colour": "#20352c"}]'
)  # what pages offered before they had palettes

revision = "0004"
down_revision = "0003"


def upgrade() -> None:
    with op.batch_alter_table("line") as table:
        table.add_column(sa.Column("second_ink", sa.String, nullable=True))
        table.add_column(sa.Column("arrangement", sa.Integer, nullable=True))
    with op.batch_alter_table("page") as table:
        table.add_column(sa.Column("palette", sa.JSON, nullable=False, server_default=DYES))
    with op.batch_alter_table("brush") as table:
        table.add_column(sa.Column("pinned", sa.JSON, nullable=False, server_default="[]"))


def downgrade() -> None:
    with op.batch_alter_table("brush") as table:
        table.drop_column("pinned")
    with op.batch_alter_table("page") as table:
        table.drop_column("palette")
    with op.batch_alter_table("line") as table:
        table.drop_column("arrangement")
        table.drop_column("second_ink")
