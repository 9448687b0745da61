"""A line's second ink and its own arrangement, a page's palette, and the arrangements pinned to a brush."""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"


def upgrade() -> None:
    with op.batch_alter_table("line") as table:
        table.add_column(sa.Column("second_ink", sa.String, nullable=True))
        table.add_column(sa.Column("arrangement", sa.Integer, nullable=True))
    with op.batch_alter_table("page") as table:
        table.add_column(sa.Column("palette", sa.JSON, nullable=False, server_default="[]"))
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
