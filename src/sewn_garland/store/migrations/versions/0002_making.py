"""Cuts and joints of motifs, pieces by role of brushes, and the originals that pictures come from."""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"


def upgrade() -> None:
    with op.batch_alter_table("motif") as table:
        table.add_column(sa.Column("cuts_mm", sa.JSON))
        table.add_column(sa.Column("joints_mm", sa.JSON))
    with op.batch_alter_table("brush") as table:
        table.add_column(sa.Column("pieces", sa.JSON, nullable=False, server_default="{}"))
    op.create_table(
        "original", sa.Column("sha", sa.String, primary_key=True), sa.Column("name", sa.String, nullable=False),
        sa.Column("data", sa.LargeBinary, nullable=False), sa.Column("width_px", sa.Integer, nullable=False),
        sa.Column("height_px", sa.Integer, nullable=False), sa.Column("dpi", sa.Float), sa.Column("told", sa.JSON, nullable=False),
    )  # fmt: skip


def downgrade() -> None:
    op.drop_table("original")
    with op.batch_alter_table("brush") as table:
        table.drop_column("pieces")
    with op.batch_alter_table("motif") as table:
        table.drop_column("joints_mm")
        table.drop_column("cuts_mm")
