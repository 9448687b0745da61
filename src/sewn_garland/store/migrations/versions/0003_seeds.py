"""The number that chance knows a line by: what it was known by so far, its place on its page from below."""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"


def upgrade() -> None:
    with op.batch_alter_table("line") as table:
        table.add_column(sa.Column("seed", sa.Integer, nullable=False, server_default="0"))
    op.execute(
        "UPDATE line SET seed = (SELECT COUNT(*) FROM line AS below WHERE below.page_id = line.page_id "
        "AND (below.position < line.position OR (below.position = line.position AND below.id < line.id)))"
    )


def downgrade() -> None:
    with op.batch_alter_table("line") as table:
        table.drop_column("seed")
