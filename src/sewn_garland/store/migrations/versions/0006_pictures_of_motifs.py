"""Of a motif the picture that it was made of, and how."""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"


def upgrade() -> None:
    op.add_column("motif", sa.Column("picture", sa.JSON, nullable=True))


def downgrade() -> None:
    op.drop_column("motif", "picture")
