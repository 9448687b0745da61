"""A picture as the ground of a page."""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"


def upgrade() -> None:
    op.add_column("page", sa.Column("ground_picture", sa.JSON, nullable=True))


def downgrade() -> None:
    op.drop_column("page", "ground_picture")
