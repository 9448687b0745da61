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
    # columns alone, for tables that others refer to cannot be made anew while these stand
    op.add_column("line", sa.Column("second_ink", sa.String, nullable=True))
    op.add_column("line", sa.Column("arrangement", sa.Integer, nullable=True))
    op.add_column("page", sa.Column("palette", sa.JSON, nullable=False, server_default=DYES))
    op.add_column("brush", sa.Column("pinned", sa.JSON, nullable=False, server_default="[]"))


def downgrade() -> None:
    op.drop_column("brush", "pinned")
    op.drop_column("page", "palette")
    op.drop_column("line", "arrangement")
    op.drop_column("line", "second_ink")
