"""First tables: motifs, brushes, pages, lines, steps."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None


def _id() -> sa.Column:
    return sa.Column("id", sa.Integer, primary_key=True)


def _version() -> sa.Column:
    return sa.Column("version", sa.Integer, nullable=False)


def upgrade() -> None:
    op.create_table(
        "motif", _id(), sa.Column("name", sa.String, nullable=False), sa.Column("svg", sa.String, nullable=False),
        sa.Column("base_line_mm", sa.Float, nullable=False), sa.Column("left_out", sa.JSON, nullable=False), _version(),
        sqlite_autoincrement=True,
    )  # fmt: skip
    op.create_table(
        "brush", _id(), sa.Column("name", sa.String, nullable=False),
        sa.Column("motif_id", sa.Integer, sa.ForeignKey("motif.id", name="fk_brush_motif_id_motif"), nullable=False),
        sa.Column("settings", sa.JSON, nullable=False), _version(),
        sqlite_autoincrement=True,
    )  # fmt: skip
    op.create_index("ix_brush_motif_id", "brush", ["motif_id"])
    op.create_table(
        "page", _id(), sa.Column("name", sa.String, nullable=False), sa.Column("width_mm", sa.Float, nullable=False),
        sa.Column("height_mm", sa.Float, nullable=False), sa.Column("ground", sa.String),
        sa.Column("scenery", sa.JSON, nullable=False), _version(),
        sqlite_autoincrement=True,
    )  # fmt: skip
    op.create_table(
        "line", _id(),
        sa.Column("page_id", sa.Integer, sa.ForeignKey("page.id", name="fk_line_page_id_page", ondelete="CASCADE"), nullable=False),
        sa.Column("brush_id", sa.Integer, sa.ForeignKey("brush.id", name="fk_line_brush_id_brush"), nullable=False),
        sa.Column("name", sa.String, nullable=False), sa.Column("position", sa.Float, nullable=False),
        sa.Column("source", sa.JSON, nullable=False), sa.Column("path", sa.String, nullable=False),
        sa.Column("size_pct", sa.Float, nullable=False), sa.Column("ink", sa.String),
        sa.Column("visible", sa.Boolean, nullable=False), _version(),
        sqlite_autoincrement=True,
    )  # fmt: skip
    op.create_index("ix_line_page_id", "line", ["page_id"])
    op.create_index("ix_line_brush_id", "line", ["brush_id"])
    op.create_table(
        "step", _id(), sa.Column("label", sa.String, nullable=False), sa.Column("at", sa.Float, nullable=False),
        sa.Column("changes", sa.JSON, nullable=False), sa.Column("merge_key", sa.String, nullable=False),
        sa.Column("undone", sa.Boolean, nullable=False),
        sqlite_autoincrement=True,
    )  # fmt: skip


def downgrade() -> None:
    for table in ("step", "line", "page", "brush", "motif"):
        op.drop_table(table)
